/*M!999999\- enable the sandbox mode */ 
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `alembic_version` (
  `version_num` varchar(32) NOT NULL,
  PRIMARY KEY (`version_num`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `alembic_version` VALUES ('0002');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `building` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `name` varchar(120) NOT NULL,
  `roof` varchar(120) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  CONSTRAINT `building_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `building` VALUES ('p-c96b54fd4124','house',1,'House','roof-tiles');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `device` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `floor` varchar(40) NOT NULL,
  `kind` varchar(40) NOT NULL,
  `model` varchar(120) NOT NULL,
  `name` varchar(120) NOT NULL,
  `at` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`at`)),
  `height_m` double NOT NULL,
  `mount` varchar(40) NOT NULL,
  `azimuth_deg` double NOT NULL,
  `tilt_deg` double NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`floor`),
  CONSTRAINT `device_ibfk_1` FOREIGN KEY (`project_id`, `floor`) REFERENCES `floor` (`project_id`, `id`),
  CONSTRAINT `device_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `device` VALUES ('p-c96b54fd4124','ap-1',1,'lower','access_point','ravelmoor-c2','AP-1','[5.5, 4.0]',2.6,'ceiling',0,0);
INSERT INTO `device` VALUES ('p-c96b54fd4124','ap-2',2,'middle','access_point','ravelmoor-c2','AP-2','[7.0, 5.0]',2.6,'ceiling',0,0);
INSERT INTO `device` VALUES ('p-c96b54fd4124','ap-3',3,'top','access_point','ravelmoor-c2','AP-3','[6.0, 7.5]',2.6,'ceiling',0,0);
INSERT INTO `device` VALUES ('p-c96b54fd4124','ap-4',4,'middle','access_point','ravelmoor-c2','AP-4','[3.0, 7.5]',2.6,'ceiling',0,0);
INSERT INTO `device` VALUES ('p-c96b54fd4124','ap-5',5,'middle','access_point','ravelmoor-c2','AP-5','[11.5, 4.0]',2.6,'ceiling',0,0);
INSERT INTO `device` VALUES ('p-c96b54fd4124','cam-1',6,'lower','camera','peltwick-turret','CAM-1','[13.7, 0.3]',2.5,'wall',135,0);
INSERT INTO `device` VALUES ('p-c96b54fd4124','out-1',7,'middle','outlet','outlet-single','Television','[0.3, 3.0]',0.3,'wall',0,0);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `duct` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `name` varchar(120) NOT NULL,
  `from_floor` varchar(40) NOT NULL,
  `to_floor` varchar(40) NOT NULL,
  `path` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`path`)),
  `depth_m` double NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`from_floor`),
  KEY `project_id_2` (`project_id`,`to_floor`),
  CONSTRAINT `duct_ibfk_1` FOREIGN KEY (`project_id`, `from_floor`) REFERENCES `floor` (`project_id`, `id`),
  CONSTRAINT `duct_ibfk_2` FOREIGN KEY (`project_id`, `to_floor`) REFERENCES `floor` (`project_id`, `id`),
  CONSTRAINT `duct_ibfk_3` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `equipment_room` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `floor` varchar(40) NOT NULL,
  `name` varchar(120) NOT NULL,
  `at` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`at`)),
  `rack_height_m` double NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`floor`),
  CONSTRAINT `equipment_room_ibfk_1` FOREIGN KEY (`project_id`, `floor`) REFERENCES `floor` (`project_id`, `id`),
  CONSTRAINT `equipment_room_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `equipment_room` VALUES ('p-c96b54fd4124','rack',1,'lower','Utility shelf','[1.0, 9.0]',1.2);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `floor` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `building` varchar(40) NOT NULL,
  `name` varchar(120) NOT NULL,
  `level` int(11) NOT NULL,
  `elevation_m` double NOT NULL,
  `ceiling_height_m` double NOT NULL,
  `slab` varchar(120) NOT NULL,
  `overhead` varchar(40) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`building`),
  CONSTRAINT `floor_ibfk_1` FOREIGN KEY (`project_id`, `building`) REFERENCES `building` (`project_id`, `id`),
  CONSTRAINT `floor_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `floor` VALUES ('p-c96b54fd4124','lower',1,'house','Lake level',0,0,2.6,'floor-timber','joists');
INSERT INTO `floor` VALUES ('p-c96b54fd4124','middle',2,'house','Main floor',1,3,2.6,'floor-timber','joists');
INSERT INTO `floor` VALUES ('p-c96b54fd4124','top',3,'house','Top floor',2,6,2.6,'floor-timber','attic');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `injector` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `device` varchar(40) NOT NULL,
  `model` varchar(120) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`device`),
  CONSTRAINT `injector_ibfk_1` FOREIGN KEY (`project_id`, `device`) REFERENCES `device` (`project_id`, `id`),
  CONSTRAINT `injector_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `journal` (
  `project_id` varchar(40) NOT NULL,
  `revision` int(11) NOT NULL,
  `made` datetime NOT NULL DEFAULT current_timestamp(),
  `author` varchar(120) NOT NULL,
  `label` varchar(120) NOT NULL,
  `changes` longtext NOT NULL,
  PRIMARY KEY (`project_id`,`revision`),
  CONSTRAINT `journal_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `journal` VALUES ('p-c96b54fd4124',1,'2026-11-25 02:33:07','demo','Demo site','[{\"op\": \"put\", \"kind\": \"site\", \"element\": {\"id\": \"site\", \"kind\": \"home\", \"domain\": \"americas\", \"line_mbps\": 300.0, \"upstream_subnet\": \"192.168.1.0/24\", \"client\": \"phone\", \"minimum_category\": \"6\", \"cables_per_access_point\": 1, \"cords_m\": 5.0, \"slack_device_m\": 3.0, \"slack_rack_m\": 3.0, \"power_headroom\": 0.2, \"width_5ghz_mhz\": 40, \"channels_149_up\": false, \"margin_db\": 3.0, \"tight_bundles\": false, \"currency\": \"EUR\"}}, {\"op\": \"put\", \"kind\": \"building\", \"element\": {\"id\": \"house\", \"name\": \"House\", \"roof\": \"roof-tiles\"}}, {\"op\": \"put\", \"kind\": \"floor\", \"element\": {\"id\": \"lower\", \"building\": \"house\", \"name\": \"Lake level\", \"level\": 0, \"elevation_m\": 0.0, \"ceiling_height_m\": 2.6, \"slab\": \"floor-timber\", \"overhead\": \"joists\"}}, {\"op\": \"put\", \"kind\": \"floor\", \"element\": {\"id\": \"middle\", \"building\": \"house\", \"name\": \"Main floor\", \"level\": 1, \"elevation_m\": 3.0, \"ceiling_height_m\": 2.6, \"slab\": \"floor-timber\", \"overhead\": \"joists\"}}, {\"op\": \"put\", \"kind\": \"floor\", \"element\": {\"id\": \"top\", \"building\": \"house\", \"name\": \"Top floor\", \"level\": 2, \"elevation_m\": 6.0, \"ceiling_height_m\": 2.6, \"slab\": \"floor-timber\", \"overhead\": \"attic\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w1\", \"floor\": \"lower\", \"a\": [0.0, 0.0], \"b\": [0.0, 10.0], \"construction\": \"stone\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w2\", \"floor\": \"lower\", \"a\": [4.0, 6.0], \"b\": [4.0, 10.0], \"construction\": \"block-dense\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w3\", \"floor\": \"lower\", \"a\": [7.0, 6.0], \"b\": [7.0, 10.0], \"construction\": \"concrete\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w4\", \"floor\": \"lower\", \"a\": [8.0, 0.0], \"b\": [8.0, 6.0], \"construction\": \"block-dense\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w5\", \"floor\": \"lower\", \"a\": [10.0, 6.0], \"b\": [10.0, 10.0], \"construction\": \"concrete\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w6\", \"floor\": \"lower\", \"a\": [14.0, 0.0], \"b\": [14.0, 10.0], \"construction\": \"stone\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w7\", \"floor\": \"lower\", \"a\": [0.0, 0.0], \"b\": [14.0, 0.0], \"construction\": \"stone\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w8\", \"floor\": \"lower\", \"a\": [0.0, 6.0], \"b\": [4.0, 6.0], \"construction\": \"block-dense\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w9\", \"floor\": \"lower\", \"a\": [4.0, 6.0], \"b\": [7.0, 6.0], \"construction\": \"plasterboard\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w10\", \"floor\": \"lower\", \"a\": [7.0, 6.0], \"b\": [10.0, 6.0], \"construction\": \"concrete\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w11\", \"floor\": \"lower\", \"a\": [10.0, 6.0], \"b\": [14.0, 6.0], \"construction\": \"block-dense\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w12\", \"floor\": \"lower\", \"a\": [0.0, 10.0], \"b\": [14.0, 10.0], \"construction\": \"stone\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w13\", \"floor\": \"middle\", \"a\": [0.0, 0.0], \"b\": [0.0, 10.0], \"construction\": \"timber-clad\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w14\", \"floor\": \"middle\", \"a\": [4.0, 6.0], \"b\": [4.0, 10.0], \"construction\": \"plasterboard\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w15\", \"floor\": \"middle\", \"a\": [7.0, 6.0], \"b\": [7.0, 10.0], \"construction\": \"wet-wall\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w16\", \"floor\": \"middle\", \"a\": [8.0, 0.0], \"b\": [8.0, 6.0], \"construction\": \"plasterboard\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w17\", \"floor\": \"middle\", \"a\": [9.0, 6.0], \"b\": [9.0, 10.0], \"construction\": \"wet-wall\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w18\", \"floor\": \"middle\", \"a\": [14.0, 0.0], \"b\": [14.0, 10.0], \"construction\": \"timber-clad\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w19\", \"floor\": \"middle\", \"a\": [0.0, 0.0], \"b\": [14.0, 0.0], \"construction\": \"timber-clad\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w20\", \"floor\": \"middle\", \"a\": [0.0, 6.0], \"b\": [7.0, 6.0], \"construction\": \"plasterboard\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w21\", \"floor\": \"middle\", \"a\": [7.0, 6.0], \"b\": [9.0, 6.0], \"construction\": \"wet-wall\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w22\", \"floor\": \"middle\", \"a\": [9.0, 6.0], \"b\": [14.0, 6.0], \"construction\": \"plasterboard\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w23\", \"floor\": \"middle\", \"a\": [0.0, 10.0], \"b\": [14.0, 10.0], \"construction\": \"timber-clad\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w24\", \"floor\": \"top\", \"a\": [0.0, 0.0], \"b\": [0.0, 10.0], \"construction\": \"timber-clad\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w25\", \"floor\": \"top\", \"a\": [4.0, 6.0], \"b\": [4.0, 10.0], \"construction\": \"plasterboard\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w26\", \"floor\": \"top\", \"a\": [6.0, 0.0], \"b\": [6.0, 6.0], \"construction\": \"wet-wall\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w27\", \"floor\": \"top\", \"a\": [7.0, 6.0], \"b\": [7.0, 10.0], \"construction\": \"plasterboard\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w28\", \"floor\": \"top\", \"a\": [9.0, 0.0], \"b\": [9.0, 6.0], \"construction\": \"wet-wall\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w29\", \"floor\": \"top\", \"a\": [9.0, 6.0], \"b\": [9.0, 10.0], \"construction\": \"plasterboard\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w30\", \"floor\": \"top\", \"a\": [14.0, 0.0], \"b\": [14.0, 10.0], \"construction\": \"timber-clad\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w31\", \"floor\": \"top\", \"a\": [0.0, 0.0], \"b\": [14.0, 0.0], \"construction\": \"timber-clad\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w32\", \"floor\": \"top\", \"a\": [0.0, 6.0], \"b\": [6.0, 6.0], \"construction\": \"plasterboard\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w33\", \"floor\": \"top\", \"a\": [6.0, 6.0], \"b\": [9.0, 6.0], \"construction\": \"wet-wall\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w34\", \"floor\": \"top\", \"a\": [9.0, 6.0], \"b\": [14.0, 6.0], \"construction\": \"plasterboard\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w35\", \"floor\": \"top\", \"a\": [0.0, 10.0], \"b\": [14.0, 10.0], \"construction\": \"timber-clad\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o1\", \"wall\": \"w9\", \"kind\": \"door\", \"offset_m\": 1.1, \"width_m\": 0.8, \"construction\": \"door-hollow\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o2\", \"wall\": \"w2\", \"kind\": \"door\", \"offset_m\": 1.6, \"width_m\": 0.8, \"construction\": \"door-hollow\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o3\", \"wall\": \"w3\", \"kind\": \"door\", \"offset_m\": 1.6, \"width_m\": 0.8, \"construction\": \"door-hollow\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o4\", \"wall\": \"w4\", \"kind\": \"door\", \"offset_m\": 2.6, \"width_m\": 0.8, \"construction\": \"door-hollow\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o5\", \"wall\": \"w5\", \"kind\": \"door\", \"offset_m\": 1.6, \"width_m\": 0.8, \"construction\": \"door-hollow\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o6\", \"wall\": \"w20\", \"kind\": \"door\", \"offset_m\": 5.1, \"width_m\": 0.8, \"construction\": \"door-hollow\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o7\", \"wall\": \"w14\", \"kind\": \"door\", \"offset_m\": 1.6, \"width_m\": 0.8, \"construction\": \"door-hollow\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o8\", \"wall\": \"w16\", \"kind\": \"door\", \"offset_m\": 1.6, \"width_m\": 0.8, \"construction\": \"door-hollow\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o9\", \"wall\": \"w15\", \"kind\": \"door\", \"offset_m\": 1.6, \"width_m\": 0.8, \"construction\": \"door-hollow\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o10\", \"wall\": \"w22\", \"kind\": \"door\", \"offset_m\": 1.6, \"width_m\": 0.8, \"construction\": \"door-hollow\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o11\", \"wall\": \"w32\", \"kind\": \"door\", \"offset_m\": 5.1, \"width_m\": 0.8, \"construction\": \"door-hollow\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o12\", \"wall\": \"w25\", \"kind\": \"door\", \"offset_m\": 1.6, \"width_m\": 0.8, \"construction\": \"door-hollow\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o13\", \"wall\": \"w27\", \"kind\": \"door\", \"offset_m\": 1.6, \"width_m\": 0.8, \"construction\": \"door-hollow\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o14\", \"wall\": \"w29\", \"kind\": \"door\", \"offset_m\": 1.6, \"width_m\": 0.8, \"construction\": \"door-hollow\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o15\", \"wall\": \"w34\", \"kind\": \"door\", \"offset_m\": 1.6, \"width_m\": 0.8, \"construction\": \"door-hollow\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o16\", \"wall\": \"w7\", \"kind\": \"window\", \"offset_m\": 1.9, \"width_m\": 2.2, \"construction\": \"glass-clear\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o17\", \"wall\": \"w7\", \"kind\": \"window\", \"offset_m\": 9.9, \"width_m\": 2.2, \"construction\": \"glass-clear\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o18\", \"wall\": \"w6\", \"kind\": \"window\", \"offset_m\": 7.4, \"width_m\": 1.2, \"construction\": \"glass-clear\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o19\", \"wall\": \"w19\", \"kind\": \"window\", \"offset_m\": 1.9, \"width_m\": 2.2, \"construction\": \"glass-clear\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o20\", \"wall\": \"w19\", \"kind\": \"window\", \"offset_m\": 9.9, \"width_m\": 2.2, \"construction\": \"glass-clear\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o21\", \"wall\": \"w18\", \"kind\": \"window\", \"offset_m\": 7.4, \"width_m\": 1.2, \"construction\": \"glass-clear\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o22\", \"wall\": \"w31\", \"kind\": \"window\", \"offset_m\": 1.9, \"width_m\": 2.2, \"construction\": \"glass-clear\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o23\", \"wall\": \"w31\", \"kind\": \"window\", \"offset_m\": 9.9, \"width_m\": 2.2, \"construction\": \"glass-clear\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o24\", \"wall\": \"w30\", \"kind\": \"window\", \"offset_m\": 7.4, \"width_m\": 1.2, \"construction\": \"glass-clear\"}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"lower-games-room\", \"floor\": \"lower\", \"name\": \"Games room\", \"use\": \"everyday\", \"outline\": [[0.0, 0.0], [8.0, 0.0], [8.0, 6.0], [0.0, 6.0]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"outdoor\": false}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"lower-workshop\", \"floor\": \"lower\", \"name\": \"Workshop\", \"use\": \"sensors\", \"outline\": [[8.0, 0.0], [14.0, 0.0], [14.0, 6.0], [8.0, 6.0]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"outdoor\": false}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"lower-utility\", \"floor\": \"lower\", \"name\": \"Utility\", \"use\": \"none\", \"outline\": [[0.0, 6.0], [4.0, 6.0], [4.0, 10.0], [0.0, 10.0]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"outdoor\": false}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"lower-lower-stairs\", \"floor\": \"lower\", \"name\": \"Lower stairs\", \"use\": \"calls\", \"outline\": [[4.0, 6.0], [7.0, 6.0], [7.0, 10.0], [4.0, 10.0]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"outdoor\": false}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"lower-wine-store\", \"floor\": \"lower\", \"name\": \"Wine store\", \"use\": \"none\", \"outline\": [[7.0, 6.0], [10.0, 6.0], [10.0, 10.0], [7.0, 10.0]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"outdoor\": false}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"lower-guest-room\", \"floor\": \"lower\", \"name\": \"Guest room\", \"use\": \"everyday\", \"outline\": [[10.0, 6.0], [14.0, 6.0], [14.0, 10.0], [10.0, 10.0]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"outdoor\": false}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"lower-jetty-deck\", \"floor\": \"lower\", \"name\": \"Jetty deck\", \"use\": \"everyday\", \"outline\": [[2.0, -5.0], [12.0, -5.0], [12.0, 0.0], [2.0, 0.0]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"outdoor\": true}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"middle-living-room\", \"floor\": \"middle\", \"name\": \"Living room\", \"use\": \"calls\", \"outline\": [[0.0, 0.0], [8.0, 0.0], [8.0, 6.0], [0.0, 6.0]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"outdoor\": false}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"middle-kitchen\", \"floor\": \"middle\", \"name\": \"Kitchen\", \"use\": \"calls\", \"outline\": [[8.0, 0.0], [14.0, 0.0], [14.0, 6.0], [8.0, 6.0]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"outdoor\": false}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"middle-study\", \"floor\": \"middle\", \"name\": \"Study\", \"use\": \"calls\", \"outline\": [[0.0, 6.0], [4.0, 6.0], [4.0, 10.0], [0.0, 10.0]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"outdoor\": false}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"middle-stairs\", \"floor\": \"middle\", \"name\": \"Stairs\", \"use\": \"calls\", \"outline\": [[4.0, 6.0], [7.0, 6.0], [7.0, 10.0], [4.0, 10.0]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"outdoor\": false}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"middle-cloakroom\", \"floor\": \"middle\", \"name\": \"Cloakroom\", \"use\": \"none\", \"outline\": [[7.0, 6.0], [9.0, 6.0], [9.0, 10.0], [7.0, 10.0]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"outdoor\": false}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"middle-dining-room\", \"floor\": \"middle\", \"name\": \"Dining room\", \"use\": \"everyday\", \"outline\": [[9.0, 6.0], [14.0, 6.0], [14.0, 10.0], [9.0, 10.0]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"outdoor\": false}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"top-main-bedroom\", \"floor\": \"top\", \"name\": \"Main bedroom\", \"use\": \"everyday\", \"outline\": [[0.0, 0.0], [6.0, 0.0], [6.0, 6.0], [0.0, 6.0]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"outdoor\": false}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"top-bath\", \"floor\": \"top\", \"name\": \"Bath\", \"use\": \"none\", \"outline\": [[6.0, 0.0], [9.0, 0.0], [9.0, 6.0], [6.0, 6.0]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"outdoor\": false}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"top-bedroom-2\", \"floor\": \"top\", \"name\": \"Bedroom 2\", \"use\": \"everyday\", \"outline\": [[9.0, 0.0], [14.0, 0.0], [14.0, 6.0], [9.0, 6.0]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"outdoor\": false}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"top-bedroom-3\", \"floor\": \"top\", \"name\": \"Bedroom 3\", \"use\": \"everyday\", \"outline\": [[0.0, 6.0], [4.0, 6.0], [4.0, 10.0], [0.0, 10.0]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"outdoor\": false}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"top-upper-stairs\", \"floor\": \"top\", \"name\": \"Upper stairs\", \"use\": \"calls\", \"outline\": [[4.0, 6.0], [7.0, 6.0], [7.0, 10.0], [4.0, 10.0]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"outdoor\": false}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"top-closet\", \"floor\": \"top\", \"name\": \"Closet\", \"use\": \"none\", \"outline\": [[7.0, 6.0], [9.0, 6.0], [9.0, 10.0], [7.0, 10.0]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"outdoor\": false}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"top-loft-office\", \"floor\": \"top\", \"name\": \"Loft office\", \"use\": \"calls\", \"outline\": [[9.0, 6.0], [14.0, 6.0], [14.0, 10.0], [9.0, 10.0]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"outdoor\": false}}, {\"op\": \"put\", \"kind\": \"riser\", \"element\": {\"id\": \"riser-1\", \"building\": \"house\", \"name\": \"Stair closet\", \"at\": [4.5, 9.5], \"lowest_level\": 0, \"highest_level\": 2}}, {\"op\": \"put\", \"kind\": \"equipment_room\", \"element\": {\"id\": \"rack\", \"floor\": \"lower\", \"name\": \"Utility shelf\", \"at\": [1.0, 9.0], \"rack_height_m\": 1.2}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"ap-1\", \"floor\": \"lower\", \"kind\": \"access_point\", \"model\": \"ravelmoor-c2\", \"name\": \"AP-1\", \"at\": [5.5, 4.0], \"height_m\": 2.6, \"mount\": \"ceiling\", \"azimuth_deg\": 0.0, \"tilt_deg\": 0.0}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"ap-2\", \"floor\": \"middle\", \"kind\": \"access_point\", \"model\": \"ravelmoor-c2\", \"name\": \"AP-2\", \"at\": [7.0, 5.0], \"height_m\": 2.6, \"mount\": \"ceiling\", \"azimuth_deg\": 0.0, \"tilt_deg\": 0.0}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"ap-3\", \"floor\": \"top\", \"kind\": \"access_point\", \"model\": \"ravelmoor-c2\", \"name\": \"AP-3\", \"at\": [6.0, 7.5], \"height_m\": 2.6, \"mount\": \"ceiling\", \"azimuth_deg\": 0.0, \"tilt_deg\": 0.0}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"ap-4\", \"floor\": \"middle\", \"kind\": \"access_point\", \"model\": \"ravelmoor-c2\", \"name\": \"AP-4\", \"at\": [3.0, 7.5], \"height_m\": 2.6, \"mount\": \"ceiling\", \"azimuth_deg\": 0.0, \"tilt_deg\": 0.0}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"ap-5\", \"floor\": \"middle\", \"kind\": \"access_point\", \"model\": \"ravelmoor-c2\", \"name\": \"AP-5\", \"at\": [11.5, 4.0], \"height_m\": 2.6, \"mount\": \"ceiling\", \"azimuth_deg\": 0.0, \"tilt_deg\": 0.0}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"cam-1\", \"floor\": \"lower\", \"kind\": \"camera\", \"model\": \"peltwick-turret\", \"name\": \"CAM-1\", \"at\": [13.7, 0.3], \"height_m\": 2.5, \"mount\": \"wall\", \"azimuth_deg\": 135.0, \"tilt_deg\": 0.0}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"out-1\", \"floor\": \"middle\", \"kind\": \"outlet\", \"model\": \"outlet-single\", \"name\": \"Television\", \"at\": [0.3, 3.0], \"height_m\": 0.3, \"mount\": \"wall\", \"azimuth_deg\": 0.0, \"tilt_deg\": 0.0}}, {\"op\": \"put\", \"kind\": \"switch\", \"element\": {\"id\": \"sw-1\", \"equipment_room\": \"rack\", \"name\": \"SW-1\", \"model\": \"dunthrip-s8\"}}, {\"op\": \"put\", \"kind\": \"network\", \"element\": {\"id\": \"net-main\", \"name\": \"Family\", \"purpose\": \"main\", \"vlan\": 1, \"subnet\": \"192.168.1.0/24\", \"expected_clients\": 25, \"client_isolation\": false, \"reaches\": []}}, {\"op\": \"put\", \"kind\": \"network\", \"element\": {\"id\": \"net-guest\", \"name\": \"Guests\", \"purpose\": \"guest\", \"vlan\": 20, \"subnet\": \"192.168.20.0/24\", \"expected_clients\": 12, \"client_isolation\": true, \"reaches\": []}}, {\"op\": \"put\", \"kind\": \"wireless_name\", \"element\": {\"id\": \"ssid-main\", \"network\": \"net-main\", \"ssid\": \"Alderness\", \"bands\": [\"2.4\", \"5\"], \"security\": \"wpa3_wpa2\", \"client_isolation\": false, \"fast_transition\": true}}, {\"op\": \"put\", \"kind\": \"wireless_name\", \"element\": {\"id\": \"ssid-guest\", \"network\": \"net-guest\", \"ssid\": \"Alderness guests\", \"bands\": [\"2.4\", \"5\"], \"security\": \"wpa3_wpa2\", \"client_isolation\": true, \"fast_transition\": true}}]');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `network` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `name` varchar(120) NOT NULL,
  `purpose` varchar(40) NOT NULL,
  `vlan` int(11) NOT NULL,
  `subnet` varchar(120) NOT NULL,
  `expected_clients` int(11) NOT NULL,
  `client_isolation` tinyint(1) NOT NULL,
  `reaches` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`reaches`)),
  PRIMARY KEY (`project_id`,`id`),
  CONSTRAINT `network_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `network` VALUES ('p-c96b54fd4124','net-guest',2,'Guests','guest',20,'192.168.20.0/24',12,1,'[]');
INSERT INTO `network` VALUES ('p-c96b54fd4124','net-main',1,'Family','main',1,'192.168.1.0/24',25,0,'[]');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `opening` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `wall` varchar(40) NOT NULL,
  `kind` varchar(40) NOT NULL,
  `offset_m` double NOT NULL,
  `width_m` double NOT NULL,
  `construction` varchar(120) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`wall`),
  CONSTRAINT `opening_ibfk_1` FOREIGN KEY (`project_id`, `wall`) REFERENCES `wall` (`project_id`, `id`),
  CONSTRAINT `opening_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o1',1,'w9','door',1.1,0.8,'door-hollow');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o10',10,'w22','door',1.6,0.8,'door-hollow');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o11',11,'w32','door',5.1,0.8,'door-hollow');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o12',12,'w25','door',1.6,0.8,'door-hollow');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o13',13,'w27','door',1.6,0.8,'door-hollow');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o14',14,'w29','door',1.6,0.8,'door-hollow');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o15',15,'w34','door',1.6,0.8,'door-hollow');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o16',16,'w7','window',1.9,2.2,'glass-clear');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o17',17,'w7','window',9.9,2.2,'glass-clear');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o18',18,'w6','window',7.4,1.2,'glass-clear');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o19',19,'w19','window',1.9,2.2,'glass-clear');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o2',2,'w2','door',1.6,0.8,'door-hollow');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o20',20,'w19','window',9.9,2.2,'glass-clear');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o21',21,'w18','window',7.4,1.2,'glass-clear');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o22',22,'w31','window',1.9,2.2,'glass-clear');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o23',23,'w31','window',9.9,2.2,'glass-clear');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o24',24,'w30','window',7.4,1.2,'glass-clear');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o3',3,'w3','door',1.6,0.8,'door-hollow');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o4',4,'w4','door',2.6,0.8,'door-hollow');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o5',5,'w5','door',1.6,0.8,'door-hollow');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o6',6,'w20','door',5.1,0.8,'door-hollow');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o7',7,'w14','door',1.6,0.8,'door-hollow');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o8',8,'w16','door',1.6,0.8,'door-hollow');
INSERT INTO `opening` VALUES ('p-c96b54fd4124','o9',9,'w15','door',1.6,0.8,'door-hollow');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `project` (
  `id` varchar(40) NOT NULL,
  `name` varchar(120) NOT NULL,
  `revision` int(11) NOT NULL,
  `created` datetime NOT NULL DEFAULT current_timestamp(),
  `opened` datetime(6) NOT NULL DEFAULT current_timestamp(6),
  PRIMARY KEY (`id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `project` VALUES ('p-c96b54fd4124','Alderness, house by the lake',1,'2026-11-25 02:33:07','2026-11-25 02:33:07.606081');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `radio` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `device` varchar(40) NOT NULL,
  `band` varchar(40) NOT NULL,
  `on` tinyint(1) NOT NULL,
  `channel` int(11) DEFAULT NULL,
  `power_dbm` double DEFAULT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`device`),
  CONSTRAINT `radio_ibfk_1` FOREIGN KEY (`project_id`, `device`) REFERENCES `device` (`project_id`, `id`),
  CONSTRAINT `radio_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `riser` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `building` varchar(40) NOT NULL,
  `name` varchar(120) NOT NULL,
  `at` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`at`)),
  `lowest_level` int(11) NOT NULL,
  `highest_level` int(11) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`building`),
  CONSTRAINT `riser_ibfk_1` FOREIGN KEY (`project_id`, `building`) REFERENCES `building` (`project_id`, `id`),
  CONSTRAINT `riser_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `riser` VALUES ('p-c96b54fd4124','riser-1',1,'house','Stair closet','[4.5, 9.5]',0,2);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `run` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `device` varchar(40) NOT NULL,
  `category` varchar(40) DEFAULT NULL,
  `cables` int(11) DEFAULT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`device`),
  CONSTRAINT `run_ibfk_1` FOREIGN KEY (`project_id`, `device`) REFERENCES `device` (`project_id`, `id`),
  CONSTRAINT `run_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `setting` (
  `name` varchar(40) NOT NULL,
  `value` text NOT NULL,
  PRIMARY KEY (`name`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `setting` VALUES ('demo','p-c96b54fd4124');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `site` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `kind` varchar(40) NOT NULL,
  `domain` varchar(40) NOT NULL,
  `line_mbps` double NOT NULL,
  `upstream_subnet` varchar(120) NOT NULL,
  `client` varchar(120) NOT NULL,
  `minimum_category` varchar(40) NOT NULL,
  `cables_per_access_point` int(11) NOT NULL,
  `cords_m` double NOT NULL,
  `slack_device_m` double NOT NULL,
  `slack_rack_m` double NOT NULL,
  `power_headroom` double NOT NULL,
  `width_5ghz_mhz` int(11) NOT NULL,
  `currency` varchar(120) NOT NULL,
  `channels_149_up` tinyint(1) NOT NULL,
  `margin_db` double NOT NULL,
  `tight_bundles` tinyint(1) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  CONSTRAINT `site_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `site` VALUES ('p-c96b54fd4124','site',1,'home','americas',300,'192.168.1.0/24','phone','6',1,5,3,3,0.2,40,'EUR',0,3,0);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `space` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `floor` varchar(40) NOT NULL,
  `name` varchar(120) NOT NULL,
  `use` varchar(40) NOT NULL,
  `outline` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`outline`)),
  `overhead` varchar(40) DEFAULT NULL,
  `ceiling_height_m` double DEFAULT NULL,
  `open_above` tinyint(1) NOT NULL,
  `outdoor` tinyint(1) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`floor`),
  CONSTRAINT `space_ibfk_1` FOREIGN KEY (`project_id`, `floor`) REFERENCES `floor` (`project_id`, `id`),
  CONSTRAINT `space_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `space` VALUES ('p-c96b54fd4124','lower-games-room',1,'lower','Games room','everyday','[[0.0, 0.0], [8.0, 0.0], [8.0, 6.0], [0.0, 6.0]]',NULL,NULL,0,0);
INSERT INTO `space` VALUES ('p-c96b54fd4124','lower-guest-room',6,'lower','Guest room','everyday','[[10.0, 6.0], [14.0, 6.0], [14.0, 10.0], [10.0, 10.0]]',NULL,NULL,0,0);
INSERT INTO `space` VALUES ('p-c96b54fd4124','lower-jetty-deck',7,'lower','Jetty deck','everyday','[[2.0, -5.0], [12.0, -5.0], [12.0, 0.0], [2.0, 0.0]]',NULL,NULL,0,1);
INSERT INTO `space` VALUES ('p-c96b54fd4124','lower-lower-stairs',4,'lower','Lower stairs','calls','[[4.0, 6.0], [7.0, 6.0], [7.0, 10.0], [4.0, 10.0]]',NULL,NULL,0,0);
INSERT INTO `space` VALUES ('p-c96b54fd4124','lower-utility',3,'lower','Utility','none','[[0.0, 6.0], [4.0, 6.0], [4.0, 10.0], [0.0, 10.0]]',NULL,NULL,0,0);
INSERT INTO `space` VALUES ('p-c96b54fd4124','lower-wine-store',5,'lower','Wine store','none','[[7.0, 6.0], [10.0, 6.0], [10.0, 10.0], [7.0, 10.0]]',NULL,NULL,0,0);
INSERT INTO `space` VALUES ('p-c96b54fd4124','lower-workshop',2,'lower','Workshop','sensors','[[8.0, 0.0], [14.0, 0.0], [14.0, 6.0], [8.0, 6.0]]',NULL,NULL,0,0);
INSERT INTO `space` VALUES ('p-c96b54fd4124','middle-cloakroom',12,'middle','Cloakroom','none','[[7.0, 6.0], [9.0, 6.0], [9.0, 10.0], [7.0, 10.0]]',NULL,NULL,0,0);
INSERT INTO `space` VALUES ('p-c96b54fd4124','middle-dining-room',13,'middle','Dining room','everyday','[[9.0, 6.0], [14.0, 6.0], [14.0, 10.0], [9.0, 10.0]]',NULL,NULL,0,0);
INSERT INTO `space` VALUES ('p-c96b54fd4124','middle-kitchen',9,'middle','Kitchen','calls','[[8.0, 0.0], [14.0, 0.0], [14.0, 6.0], [8.0, 6.0]]',NULL,NULL,0,0);
INSERT INTO `space` VALUES ('p-c96b54fd4124','middle-living-room',8,'middle','Living room','calls','[[0.0, 0.0], [8.0, 0.0], [8.0, 6.0], [0.0, 6.0]]',NULL,NULL,0,0);
INSERT INTO `space` VALUES ('p-c96b54fd4124','middle-stairs',11,'middle','Stairs','calls','[[4.0, 6.0], [7.0, 6.0], [7.0, 10.0], [4.0, 10.0]]',NULL,NULL,0,0);
INSERT INTO `space` VALUES ('p-c96b54fd4124','middle-study',10,'middle','Study','calls','[[0.0, 6.0], [4.0, 6.0], [4.0, 10.0], [0.0, 10.0]]',NULL,NULL,0,0);
INSERT INTO `space` VALUES ('p-c96b54fd4124','top-bath',15,'top','Bath','none','[[6.0, 0.0], [9.0, 0.0], [9.0, 6.0], [6.0, 6.0]]',NULL,NULL,0,0);
INSERT INTO `space` VALUES ('p-c96b54fd4124','top-bedroom-2',16,'top','Bedroom 2','everyday','[[9.0, 0.0], [14.0, 0.0], [14.0, 6.0], [9.0, 6.0]]',NULL,NULL,0,0);
INSERT INTO `space` VALUES ('p-c96b54fd4124','top-bedroom-3',17,'top','Bedroom 3','everyday','[[0.0, 6.0], [4.0, 6.0], [4.0, 10.0], [0.0, 10.0]]',NULL,NULL,0,0);
INSERT INTO `space` VALUES ('p-c96b54fd4124','top-closet',19,'top','Closet','none','[[7.0, 6.0], [9.0, 6.0], [9.0, 10.0], [7.0, 10.0]]',NULL,NULL,0,0);
INSERT INTO `space` VALUES ('p-c96b54fd4124','top-loft-office',20,'top','Loft office','calls','[[9.0, 6.0], [14.0, 6.0], [14.0, 10.0], [9.0, 10.0]]',NULL,NULL,0,0);
INSERT INTO `space` VALUES ('p-c96b54fd4124','top-main-bedroom',14,'top','Main bedroom','everyday','[[0.0, 0.0], [6.0, 0.0], [6.0, 6.0], [0.0, 6.0]]',NULL,NULL,0,0);
INSERT INTO `space` VALUES ('p-c96b54fd4124','top-upper-stairs',18,'top','Upper stairs','calls','[[4.0, 6.0], [7.0, 6.0], [7.0, 10.0], [4.0, 10.0]]',NULL,NULL,0,0);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `switch` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `equipment_room` varchar(40) NOT NULL,
  `name` varchar(120) NOT NULL,
  `model` varchar(120) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`equipment_room`),
  CONSTRAINT `switch_ibfk_1` FOREIGN KEY (`project_id`, `equipment_room`) REFERENCES `equipment_room` (`project_id`, `id`),
  CONSTRAINT `switch_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `switch` VALUES ('p-c96b54fd4124','sw-1',1,'rack','SW-1','dunthrip-s8');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `wall` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `floor` varchar(40) NOT NULL,
  `a` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`a`)),
  `b` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`b`)),
  `construction` varchar(120) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`floor`),
  CONSTRAINT `wall_ibfk_1` FOREIGN KEY (`project_id`, `floor`) REFERENCES `floor` (`project_id`, `id`),
  CONSTRAINT `wall_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w1',1,'lower','[0.0, 0.0]','[0.0, 10.0]','stone');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w10',10,'lower','[7.0, 6.0]','[10.0, 6.0]','concrete');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w11',11,'lower','[10.0, 6.0]','[14.0, 6.0]','block-dense');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w12',12,'lower','[0.0, 10.0]','[14.0, 10.0]','stone');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w13',13,'middle','[0.0, 0.0]','[0.0, 10.0]','timber-clad');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w14',14,'middle','[4.0, 6.0]','[4.0, 10.0]','plasterboard');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w15',15,'middle','[7.0, 6.0]','[7.0, 10.0]','wet-wall');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w16',16,'middle','[8.0, 0.0]','[8.0, 6.0]','plasterboard');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w17',17,'middle','[9.0, 6.0]','[9.0, 10.0]','wet-wall');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w18',18,'middle','[14.0, 0.0]','[14.0, 10.0]','timber-clad');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w19',19,'middle','[0.0, 0.0]','[14.0, 0.0]','timber-clad');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w2',2,'lower','[4.0, 6.0]','[4.0, 10.0]','block-dense');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w20',20,'middle','[0.0, 6.0]','[7.0, 6.0]','plasterboard');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w21',21,'middle','[7.0, 6.0]','[9.0, 6.0]','wet-wall');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w22',22,'middle','[9.0, 6.0]','[14.0, 6.0]','plasterboard');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w23',23,'middle','[0.0, 10.0]','[14.0, 10.0]','timber-clad');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w24',24,'top','[0.0, 0.0]','[0.0, 10.0]','timber-clad');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w25',25,'top','[4.0, 6.0]','[4.0, 10.0]','plasterboard');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w26',26,'top','[6.0, 0.0]','[6.0, 6.0]','wet-wall');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w27',27,'top','[7.0, 6.0]','[7.0, 10.0]','plasterboard');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w28',28,'top','[9.0, 0.0]','[9.0, 6.0]','wet-wall');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w29',29,'top','[9.0, 6.0]','[9.0, 10.0]','plasterboard');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w3',3,'lower','[7.0, 6.0]','[7.0, 10.0]','concrete');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w30',30,'top','[14.0, 0.0]','[14.0, 10.0]','timber-clad');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w31',31,'top','[0.0, 0.0]','[14.0, 0.0]','timber-clad');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w32',32,'top','[0.0, 6.0]','[6.0, 6.0]','plasterboard');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w33',33,'top','[6.0, 6.0]','[9.0, 6.0]','wet-wall');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w34',34,'top','[9.0, 6.0]','[14.0, 6.0]','plasterboard');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w35',35,'top','[0.0, 10.0]','[14.0, 10.0]','timber-clad');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w4',4,'lower','[8.0, 0.0]','[8.0, 6.0]','block-dense');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w5',5,'lower','[10.0, 6.0]','[10.0, 10.0]','concrete');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w6',6,'lower','[14.0, 0.0]','[14.0, 10.0]','stone');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w7',7,'lower','[0.0, 0.0]','[14.0, 0.0]','stone');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w8',8,'lower','[0.0, 6.0]','[4.0, 6.0]','block-dense');
INSERT INTO `wall` VALUES ('p-c96b54fd4124','w9',9,'lower','[4.0, 6.0]','[7.0, 6.0]','plasterboard');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `wireless_name` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `network` varchar(40) NOT NULL,
  `ssid` varchar(120) NOT NULL,
  `bands` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`bands`)),
  `security` varchar(40) NOT NULL,
  `client_isolation` tinyint(1) NOT NULL,
  `fast_transition` tinyint(1) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`network`),
  CONSTRAINT `wireless_name_ibfk_1` FOREIGN KEY (`project_id`, `network`) REFERENCES `network` (`project_id`, `id`),
  CONSTRAINT `wireless_name_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `wireless_name` VALUES ('p-c96b54fd4124','ssid-guest',2,'net-guest','Alderness guests','[\"2.4\", \"5\"]','wpa3_wpa2',1,1);
INSERT INTO `wireless_name` VALUES ('p-c96b54fd4124','ssid-main',1,'net-main','Alderness','[\"2.4\", \"5\"]','wpa3_wpa2',0,1);
