/*M!999999\- enable the sandbox mode */ 
-- MariaDB dump 10.19  Distrib 10.11.19-MariaDB, for debian-linux-gnu (x86_64)
--
-- Host: 127.0.0.1    Database: sample
-- ------------------------------------------------------
-- Server version	10.11.19-MariaDB-0+deb12u1

/*!40101 SET @OLD_CHARACTER_SET_CLIENT=@@CHARACTER_SET_CLIENT */;
/*!40101 SET @OLD_CHARACTER_SET_RESULTS=@@CHARACTER_SET_RESULTS */;
/*!40101 SET @OLD_COLLATION_CONNECTION=@@COLLATION_CONNECTION */;
/*!40101 SET NAMES utf8mb4 */;
/*!40103 SET @OLD_TIME_ZONE=@@TIME_ZONE */;
/*!40103 SET TIME_ZONE='+00:00' */;
/*!40014 SET @OLD_UNIQUE_CHECKS=@@UNIQUE_CHECKS, UNIQUE_CHECKS=0 */;
/*!40014 SET @OLD_FOREIGN_KEY_CHECKS=@@FOREIGN_KEY_CHECKS, FOREIGN_KEY_CHECKS=0 */;
/*!40101 SET @OLD_SQL_MODE=@@SQL_MODE, SQL_MODE='NO_AUTO_VALUE_ON_ZERO' */;
/*!40111 SET @OLD_SQL_NOTES=@@SQL_NOTES, SQL_NOTES=0 */;

--
-- Table structure for table `alembic_version`
--

DROP TABLE IF EXISTS `alembic_version`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `alembic_version` (
  `version_num` varchar(32) NOT NULL,
  PRIMARY KEY (`version_num`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `alembic_version`
--

LOCK TABLES `alembic_version` WRITE;
/*!40000 ALTER TABLE `alembic_version` DISABLE KEYS */;
INSERT INTO `alembic_version` VALUES
('0026');
/*!40000 ALTER TABLE `alembic_version` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `building`
--

DROP TABLE IF EXISTS `building`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `building` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `name` varchar(120) NOT NULL,
  `roof` varchar(120) NOT NULL,
  `built` int(11) DEFAULT NULL,
  PRIMARY KEY (`project_id`,`id`),
  CONSTRAINT `building_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `building`
--

LOCK TABLES `building` WRITE;
/*!40000 ALTER TABLE `building` DISABLE KEYS */;
INSERT INTO `building` VALUES
('p-68af6ac7b74f','mill',1,'Mill','roof-tiles',NULL),
('p-68af6ac7b74f','shed',2,'Boat shed','roof-metal',NULL),
('p-68af6ac7b74f','studio',3,'Orchard studio','roof-tiles',NULL);
/*!40000 ALTER TABLE `building` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `buried_service`
--

DROP TABLE IF EXISTS `buried_service`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `buried_service` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `name` varchar(120) NOT NULL,
  `carries` varchar(40) NOT NULL,
  `path` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`path`)),
  `depth_m` double DEFAULT NULL,
  `found` tinyint(1) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  CONSTRAINT `buried_service_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `buried_service`
--

LOCK TABLES `buried_service` WRITE;
/*!40000 ALTER TABLE `buried_service` DISABLE KEYS */;
INSERT INTO `buried_service` VALUES
('p-68af6ac7b74f','buried-1',1,'Old water main','water','[[48.0, -22.0], [71.0, 18.0], [78.0, 52.0]]',0.8,0),
('p-68af6ac7b74f','buried-2',2,'Studio feed','electricity','[[16.0, -6.0], [62.0, -4.0], [112.0, 33.0]]',0.6,1);
/*!40000 ALTER TABLE `buried_service` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `client_group`
--

DROP TABLE IF EXISTS `client_group`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `client_group` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `space` varchar(40) NOT NULL,
  `kind` varchar(120) NOT NULL,
  `count` int(11) NOT NULL,
  `wired` int(11) NOT NULL,
  `old` tinyint(1) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`space`),
  CONSTRAINT `client_group_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE,
  CONSTRAINT `client_group_ibfk_2` FOREIGN KEY (`project_id`, `space`) REFERENCES `space` (`project_id`, `id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `client_group`
--

LOCK TABLES `client_group` WRITE;
/*!40000 ALTER TABLE `client_group` DISABLE KEYS */;
INSERT INTO `client_group` VALUES
('p-68af6ac7b74f','who-1',1,'wheel-great-kitchen','phone',4,0,0),
('p-68af6ac7b74f','who-2',2,'wheel-great-kitchen','laptop',2,0,0),
('p-68af6ac7b74f','who-3',3,'stone-living-room','television',1,1,0),
('p-68af6ac7b74f','who-4',4,'stone-living-room','console',1,1,0),
('p-68af6ac7b74f','who-5',5,'stone-study','desk_computer',1,1,0),
('p-68af6ac7b74f','who-6',6,'stone-study','storage',1,1,0),
('p-68af6ac7b74f','who-7',7,'wheel-boot-hall','doorbell',1,1,0),
('p-68af6ac7b74f','who-8',8,'studio-painting-room','laptop',2,0,0),
('p-68af6ac7b74f','who-old',9,'bin-bedroom-2','sensor',3,0,1);
/*!40000 ALTER TABLE `client_group` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `device`
--

DROP TABLE IF EXISTS `device`;
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
  `state` varchar(40) NOT NULL,
  `reduced` tinyint(1) NOT NULL,
  `disks` int(11) DEFAULT NULL,
  `redundancy` varchar(40) DEFAULT NULL,
  `splitter` varchar(120) DEFAULT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`floor`),
  CONSTRAINT `device_ibfk_1` FOREIGN KEY (`project_id`, `floor`) REFERENCES `floor` (`project_id`, `id`),
  CONSTRAINT `device_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `device`
--

LOCK TABLES `device` WRITE;
/*!40000 ALTER TABLE `device` DISABLE KEYS */;
INSERT INTO `device` VALUES
('p-68af6ac7b74f','ap-1',1,'wheel','access_point','ravelmoor-c2','AP-1','[11.762, 1.705]',4,'ceiling',14,0,'new',0,NULL,NULL,NULL),
('p-68af6ac7b74f','ap-2',2,'wheel','access_point','ravelmoor-c2','AP-2','[2.958, 1.53]',2.5,'ceiling',14,0,'new',0,NULL,NULL,NULL),
('p-68af6ac7b74f','ap-3',3,'stone','access_point','ravelmoor-c6','AP-3','[6.401, 2.939]',2.5,'ceiling',14,0,'new',0,NULL,NULL,NULL),
('p-68af6ac7b74f','ap-4',4,'granary','access_point','ravelmoor-c2','AP-4','[11.641, 1.632]',2.4,'ceiling',14,0,'new',0,NULL,NULL,NULL),
('p-68af6ac7b74f','ap-5',5,'bin','access_point','ravelmoor-c2','AP-5','[5.818, 4.321]',2.6,'ceiling',14,0,'new',0,NULL,NULL,NULL),
('p-68af6ac7b74f','ap-6',6,'wheel','access_point','ravelmoor-t3','AP-6','[7.158, -4.361]',2.2,'pole',14,0,'new',0,NULL,NULL,NULL),
('p-68af6ac7b74f','ap-7',7,'shed','access_point','ravelmoor-x5','AP-7','[16.936, -10.612]',2.5,'ceiling',14,0,'new',0,NULL,NULL,NULL),
('p-68af6ac7b74f','ap-8',15,'studio','access_point','ravelmoor-c2','AP-8','[152.891, 66.571]',2.8,'ceiling',336,0,'new',0,NULL,NULL,NULL),
('p-68af6ac7b74f','cam-1',8,'wheel','camera','peltwick-turret','CAM-1','[13.366, -3.436]',2.3,'wall',149,0,'new',0,NULL,NULL,NULL),
('p-68af6ac7b74f','cam-2',16,'studio','camera','peltwick-pan','CAM-2','[158.993, 65.895]',2.6,'wall',336,0,'new',0,NULL,NULL,NULL),
('p-68af6ac7b74f','cam-3',9,'wheel','camera','peltwick-turret','CAM-3','[51.673, -20.098]',2.3,'pole',149,0,'new',0,NULL,NULL,NULL),
('p-68af6ac7b74f','gw-1',10,'wheel','sensor_gateway','quillbeck-gate','GW-1','[7.323, 2.503]',2.4,'wall',14,0,'new',0,NULL,NULL,'peltwick-d5'),
('p-68af6ac7b74f','gw-2',17,'studio','sensor_gateway','quillbeck-gate','GW-2','[154.574, 70.166]',2.2,'wall',336,0,'new',0,NULL,NULL,NULL),
('p-68af6ac7b74f','old-1',18,'wheel','access_point','old-router','Old router','[3.487, 8.2]',1.1,'wall',0,0,'retire',0,NULL,NULL,NULL),
('p-68af6ac7b74f','old-2',19,'stone','access_point','old-repeater','Repeater','[9.407, 5.9]',0.4,'wall',0,0,'retire',0,NULL,NULL,NULL),
('p-68af6ac7b74f','old-3',20,'studio','access_point','old-open-box','Studio box','[153.62, 69.851]',1,'wall',0,0,'unknown',0,NULL,NULL,NULL),
('p-68af6ac7b74f','router',11,'wheel','router','harrowfen-r4','Router','[3.051, 8.103]',1,'desk',14,0,'new',0,NULL,NULL,NULL),
('p-68af6ac7b74f','study-files',14,'stone','storage','corrowby-store-2','Study files','[2.082, 6.283]',0.8,'desk',14,0,'new',0,1,'mirror',NULL),
('p-68af6ac7b74f','study-plate',13,'stone','wall_plate','ravelmoor-w3','Study plate','[1.888, 6.744]',0.4,'wall',104,0,'new',0,NULL,NULL,NULL),
('p-68af6ac7b74f','television',12,'stone','outlet','outlet-single','Television','[0.799, 2.377]',0.3,'wall',14,0,'new',0,NULL,NULL,NULL);
/*!40000 ALTER TABLE `device` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `duct`
--

DROP TABLE IF EXISTS `duct`;
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
  `dug` varchar(40) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`from_floor`),
  KEY `project_id_2` (`project_id`,`to_floor`),
  CONSTRAINT `duct_ibfk_1` FOREIGN KEY (`project_id`, `from_floor`) REFERENCES `floor` (`project_id`, `id`),
  CONSTRAINT `duct_ibfk_2` FOREIGN KEY (`project_id`, `to_floor`) REFERENCES `floor` (`project_id`, `id`),
  CONSTRAINT `duct_ibfk_3` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `duct`
--

LOCK TABLES `duct` WRITE;
/*!40000 ALTER TABLE `duct` DISABLE KEYS */;
INSERT INTO `duct` VALUES
('p-68af6ac7b74f','duct-orchard',1,'Orchard duct','wheel','studio','[[15.52, 4.375], [60.0, 10.0], [110.0, 38.0], [150.0, 62.0]]',0.45,'loam');
/*!40000 ALTER TABLE `duct` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `equipment_room`
--

DROP TABLE IF EXISTS `equipment_room`;
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
  `frame` varchar(120) DEFAULT NULL,
  `battery` varchar(120) DEFAULT NULL,
  `stud_m` double DEFAULT NULL,
  `vent_m3h` double NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`floor`),
  CONSTRAINT `equipment_room_ibfk_1` FOREIGN KEY (`project_id`, `floor`) REFERENCES `floor` (`project_id`, `id`),
  CONSTRAINT `equipment_room_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `equipment_room`
--

LOCK TABLES `equipment_room` WRITE;
/*!40000 ALTER TABLE `equipment_room` DISABLE KEYS */;
INSERT INTO `equipment_room` VALUES
('p-68af6ac7b74f','rack',1,'wheel','Plant room shelf','[2.323, 7.666]',1.2,'fellgate-w9',NULL,NULL,0);
/*!40000 ALTER TABLE `equipment_room` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `extender`
--

DROP TABLE IF EXISTS `extender`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `extender` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `device` varchar(40) NOT NULL,
  `model` varchar(120) NOT NULL,
  `share` double NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`device`),
  CONSTRAINT `extender_ibfk_1` FOREIGN KEY (`project_id`, `device`) REFERENCES `device` (`project_id`, `id`),
  CONSTRAINT `extender_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `extender`
--

LOCK TABLES `extender` WRITE;
/*!40000 ALTER TABLE `extender` DISABLE KEYS */;
INSERT INTO `extender` VALUES
('p-68af6ac7b74f','ext-1',1,'cam-2','peltwick-e1',0.5);
/*!40000 ALTER TABLE `extender` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `far_point`
--

DROP TABLE IF EXISTS `far_point`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `far_point` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `name` varchar(120) NOT NULL,
  `what` varchar(40) NOT NULL,
  `at` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`at`)),
  `ground_m` double NOT NULL,
  `mast_m` double NOT NULL,
  `room` varchar(40) DEFAULT NULL,
  `room_mast_m` double NOT NULL,
  `clients` int(11) NOT NULL,
  `cameras` int(11) NOT NULL,
  `doors` int(11) NOT NULL,
  `sensors` int(11) NOT NULL,
  `mbps` double DEFAULT NULL,
  `delay_ms` double DEFAULT NULL,
  `years` int(11) NOT NULL,
  `power` varchar(40) NOT NULL,
  `land` varchar(40) NOT NULL,
  `services_known` tinyint(1) NOT NULL,
  `profile` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`profile`)),
  `trees` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`trees`)),
  `way` varchar(40) NOT NULL,
  `cell_dbm` double DEFAULT NULL,
  `cell_db` double DEFAULT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`room`),
  CONSTRAINT `far_point_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE,
  CONSTRAINT `far_point_ibfk_2` FOREIGN KEY (`project_id`, `room`) REFERENCES `equipment_room` (`project_id`, `id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `far_point`
--

LOCK TABLES `far_point` WRITE;
/*!40000 ALTER TABLE `far_point` DISABLE KEYS */;
INSERT INTO `far_point` VALUES
('p-68af6ac7b74f','far-gate',1,'Orchard gate','gate','[96.0, 66.0]',1.4,3,NULL,4,0,1,1,0,NULL,NULL,10,'none','trees',0,'[[30.0, -0.6], [62.0, 0.4], [85.0, 1.0]]','[[48.0, 70.0, 5.5, 0.4]]','',NULL,NULL),
('p-68af6ac7b74f','far-stage',2,'Landing stage','pond','[74.0, -46.0]',-1.2,3,NULL,4,2,1,0,0,NULL,NULL,10,'none','water',0,'[[18.0, -0.4], [30.0, -2.6], [68.0, -2.6]]','[]','',NULL,NULL);
/*!40000 ALTER TABLE `far_point` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `firm`
--

DROP TABLE IF EXISTS `firm`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `firm` (
  `id` int(11) NOT NULL,
  `said` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`said`)),
  `media` varchar(40) DEFAULT NULL,
  `mark` longblob DEFAULT NULL,
  PRIMARY KEY (`id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `firm`
--

LOCK TABLES `firm` WRITE;
/*!40000 ALTER TABLE `firm` DISABLE KEYS */;
/*!40000 ALTER TABLE `firm` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `firm_figure`
--

DROP TABLE IF EXISTS `firm_figure`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `firm_figure` (
  `path` varchar(120) NOT NULL,
  `value` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`value`)),
  PRIMARY KEY (`path`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `firm_figure`
--

LOCK TABLES `firm_figure` WRITE;
/*!40000 ALTER TABLE `firm_figure` DISABLE KEYS */;
/*!40000 ALTER TABLE `firm_figure` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `firm_gear`
--

DROP TABLE IF EXISTS `firm_gear`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `firm_gear` (
  `id` varchar(80) NOT NULL,
  `shelf` varchar(40) NOT NULL,
  `entry` longtext NOT NULL,
  `withdrawn` tinyint(1) NOT NULL,
  PRIMARY KEY (`id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `firm_gear`
--

LOCK TABLES `firm_gear` WRITE;
/*!40000 ALTER TABLE `firm_gear` DISABLE KEYS */;
/*!40000 ALTER TABLE `firm_gear` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `firm_practice`
--

DROP TABLE IF EXISTS `firm_practice`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `firm_practice` (
  `id` varchar(40) NOT NULL,
  `said` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`said`)),
  PRIMARY KEY (`id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `firm_practice`
--

LOCK TABLES `firm_practice` WRITE;
/*!40000 ALTER TABLE `firm_practice` DISABLE KEYS */;
/*!40000 ALTER TABLE `firm_practice` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `firm_price`
--

DROP TABLE IF EXISTS `firm_price`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `firm_price` (
  `item` varchar(120) NOT NULL,
  `price` double NOT NULL,
  `on` date NOT NULL,
  PRIMARY KEY (`item`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `firm_price`
--

LOCK TABLES `firm_price` WRITE;
/*!40000 ALTER TABLE `firm_price` DISABLE KEYS */;
/*!40000 ALTER TABLE `firm_price` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `floor`
--

DROP TABLE IF EXISTS `floor`;
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

--
-- Dumping data for table `floor`
--

LOCK TABLES `floor` WRITE;
/*!40000 ALTER TABLE `floor` DISABLE KEYS */;
INSERT INTO `floor` VALUES
('p-68af6ac7b74f','bin',4,'mill','Bin floor',3,5.8,2.1,'floor-timber','attic'),
('p-68af6ac7b74f','granary',3,'mill','Granary',2,4.4,2.4,'floor-timber','attic'),
('p-68af6ac7b74f','loft',7,'studio','Sleeping loft',1,3.4,2.2,'floor-timber','attic'),
('p-68af6ac7b74f','shed',5,'shed','Boat shed',0,0.3,2.6,'floor-timber','joists'),
('p-68af6ac7b74f','stone',2,'mill','Stone floor',1,2.9,2.5,'floor-timber','joists'),
('p-68af6ac7b74f','studio',6,'studio','Studio',0,1,2.8,'floor-timber','joists'),
('p-68af6ac7b74f','wheel',1,'mill','Wheel floor',0,0,2.5,'floor-timber','joists');
/*!40000 ALTER TABLE `floor` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `habit`
--

DROP TABLE IF EXISTS `habit`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `habit` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `from_space` varchar(40) NOT NULL,
  `to_space` varchar(40) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`from_space`),
  KEY `project_id_2` (`project_id`,`to_space`),
  CONSTRAINT `habit_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE,
  CONSTRAINT `habit_ibfk_2` FOREIGN KEY (`project_id`, `from_space`) REFERENCES `space` (`project_id`, `id`),
  CONSTRAINT `habit_ibfk_3` FOREIGN KEY (`project_id`, `to_space`) REFERENCES `space` (`project_id`, `id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `habit`
--

LOCK TABLES `habit` WRITE;
/*!40000 ALTER TABLE `habit` DISABLE KEYS */;
INSERT INTO `habit` VALUES
('p-68af6ac7b74f','walk-1',1,'wheel-great-kitchen','wheel-mill-terrace'),
('p-68af6ac7b74f','walk-2',2,'stone-study','wheel-great-kitchen'),
('p-68af6ac7b74f','walk-3',3,'wheel-great-kitchen','studio-painting-room');
/*!40000 ALTER TABLE `habit` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `injector`
--

DROP TABLE IF EXISTS `injector`;
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

--
-- Dumping data for table `injector`
--

LOCK TABLES `injector` WRITE;
/*!40000 ALTER TABLE `injector` DISABLE KEYS */;
INSERT INTO `injector` VALUES
('p-68af6ac7b74f','inj-1',1,'ap-3','peltwick-i15');
/*!40000 ALTER TABLE `injector` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `job`
--

DROP TABLE IF EXISTS `job`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `job` (
  `id` varchar(40) NOT NULL,
  `project_id` varchar(40) DEFAULT NULL,
  `kind` varchar(40) NOT NULL,
  `state` varchar(40) NOT NULL,
  `done` int(11) NOT NULL,
  `total` int(11) NOT NULL,
  `result` longtext DEFAULT NULL,
  `message` text NOT NULL,
  `created` datetime NOT NULL DEFAULT current_timestamp(),
  PRIMARY KEY (`id`),
  KEY `project_id` (`project_id`),
  CONSTRAINT `job_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `job`
--

LOCK TABLES `job` WRITE;
/*!40000 ALTER TABLE `job` DISABLE KEYS */;
/*!40000 ALTER TABLE `job` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `journal`
--

DROP TABLE IF EXISTS `journal`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `journal` (
  `project_id` varchar(40) NOT NULL,
  `revision` int(11) NOT NULL,
  `made` datetime NOT NULL DEFAULT current_timestamp(),
  `author` varchar(120) NOT NULL,
  `label` varchar(120) NOT NULL,
  `changes` longtext NOT NULL,
  `name` varchar(120) DEFAULT NULL,
  PRIMARY KEY (`project_id`,`revision`),
  CONSTRAINT `journal_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `journal`
--

LOCK TABLES `journal` WRITE;
/*!40000 ALTER TABLE `journal` DISABLE KEYS */;
INSERT INTO `journal` VALUES
('p-68af6ac7b74f',1,'2026-12-02 00:14:25','installer','Demo site','[{\"op\": \"put\", \"kind\": \"site\", \"element\": {\"id\": \"site\", \"kind\": \"home\", \"client_name\": \"E. Quern\", \"contact\": \"Installer\'s workshop, weekdays 8 to 17\", \"visited_on\": \"2026-10-05\", \"start_on\": \"2026-11-23\", \"due_on\": \"2026-11-27\", \"budget\": 12500.0, \"house_rules\": [\"listed\", \"no_visible_cable\"], \"quiet_hour\": \"03:00\", \"quiet_day\": null, \"opens\": \"00:00\", \"closes\": \"00:00\", \"units\": \"metric\", \"domain\": \"americas\", \"line_kind\": \"dsl\", \"line_mbps\": 80.0, \"line_up_mbps\": 20.0, \"line_address\": \"pppoe\", \"television\": false, \"upstream_gear\": \"Bridge box by the lane\", \"upstream_subnet\": \"192.168.1.0/24\", \"client\": \"phone\", \"minimum_category\": \"6\", \"cables_per_access_point\": 1, \"cords_m\": 5.0, \"slack_device_m\": 3.0, \"slack_rack_m\": 3.0, \"power_headroom\": 0.2, \"width_5ghz_mhz\": 80, \"channels_149_up\": false, \"radar_channels\": true, \"four_channels_24\": false, \"channels_by\": \"plan\", \"asks_second\": true, \"mount_first\": \"ceiling\", \"back_haul\": \"wired\", \"margin_db\": 3.0, \"tight_bundles\": false, \"currency\": \"EUR\"}}, {\"op\": \"put\", \"kind\": \"building\", \"element\": {\"id\": \"mill\", \"name\": \"Mill\", \"roof\": \"roof-tiles\", \"built\": null}}, {\"op\": \"put\", \"kind\": \"building\", \"element\": {\"id\": \"shed\", \"name\": \"Boat shed\", \"roof\": \"roof-metal\", \"built\": null}}, {\"op\": \"put\", \"kind\": \"building\", \"element\": {\"id\": \"studio\", \"name\": \"Orchard studio\", \"roof\": \"roof-tiles\", \"built\": null}}, {\"op\": \"put\", \"kind\": \"floor\", \"element\": {\"id\": \"wheel\", \"building\": \"mill\", \"name\": \"Wheel floor\", \"level\": 0, \"elevation_m\": 0.0, \"ceiling_height_m\": 2.5, \"slab\": \"floor-timber\", \"overhead\": \"joists\"}}, {\"op\": \"put\", \"kind\": \"floor\", \"element\": {\"id\": \"stone\", \"building\": \"mill\", \"name\": \"Stone floor\", \"level\": 1, \"elevation_m\": 2.9, \"ceiling_height_m\": 2.5, \"slab\": \"floor-timber\", \"overhead\": \"joists\"}}, {\"op\": \"put\", \"kind\": \"floor\", \"element\": {\"id\": \"granary\", \"building\": \"mill\", \"name\": \"Granary\", \"level\": 2, \"elevation_m\": 4.4, \"ceiling_height_m\": 2.4, \"slab\": \"floor-timber\", \"overhead\": \"attic\"}}, {\"op\": \"put\", \"kind\": \"floor\", \"element\": {\"id\": \"bin\", \"building\": \"mill\", \"name\": \"Bin floor\", \"level\": 3, \"elevation_m\": 5.8, \"ceiling_height_m\": 2.1, \"slab\": \"floor-timber\", \"overhead\": \"attic\"}}, {\"op\": \"put\", \"kind\": \"floor\", \"element\": {\"id\": \"shed\", \"building\": \"shed\", \"name\": \"Boat shed\", \"level\": 0, \"elevation_m\": 0.3, \"ceiling_height_m\": 2.6, \"slab\": \"floor-timber\", \"overhead\": \"joists\"}}, {\"op\": \"put\", \"kind\": \"floor\", \"element\": {\"id\": \"studio\", \"building\": \"studio\", \"name\": \"Studio\", \"level\": 0, \"elevation_m\": 1.0, \"ceiling_height_m\": 2.8, \"slab\": \"floor-timber\", \"overhead\": \"joists\"}}, {\"op\": \"put\", \"kind\": \"floor\", \"element\": {\"id\": \"loft\", \"building\": \"studio\", \"name\": \"Sleeping loft\", \"level\": 1, \"elevation_m\": 3.4, \"ceiling_height_m\": 2.2, \"slab\": \"floor-timber\", \"overhead\": \"attic\"}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w1\", \"floor\": \"wheel\", \"a\": [0.0, 0.0], \"b\": [1.089, 4.366], \"construction\": \"metal\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w2\", \"floor\": \"wheel\", \"a\": [1.089, 4.366], \"b\": [2.177, 8.733], \"construction\": \"stone\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w3\", \"floor\": \"wheel\", \"a\": [4.485, 3.52], \"b\": [5.573, 7.886], \"construction\": \"block-dense\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w4\", \"floor\": \"wheel\", \"a\": [4.851, -1.21], \"b\": [5.94, 3.157], \"construction\": \"metal\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w5\", \"floor\": \"wheel\", \"a\": [7.762, -1.935], \"b\": [9.94, 6.797], \"construction\": \"plasterboard\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w6\", \"floor\": \"wheel\", \"a\": [13.584, -3.387], \"b\": [15.761, 5.346], \"construction\": \"stone\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w7\", \"floor\": \"wheel\", \"a\": [0.0, 0.0], \"b\": [4.851, -1.21], \"construction\": \"metal\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w8\", \"floor\": \"wheel\", \"a\": [4.851, -1.21], \"b\": [13.584, -3.387], \"construction\": \"stone\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w9\", \"floor\": \"wheel\", \"a\": [1.089, 4.366], \"b\": [5.94, 3.157], \"construction\": \"metal\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w10\", \"floor\": \"wheel\", \"a\": [5.94, 3.157], \"b\": [8.851, 2.431], \"construction\": \"plasterboard\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w11\", \"floor\": \"wheel\", \"a\": [2.177, 8.733], \"b\": [15.761, 5.346], \"construction\": \"stone\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w12\", \"floor\": \"stone\", \"a\": [0.0, 0.0], \"b\": [2.177, 8.733], \"construction\": \"stone\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w13\", \"floor\": \"stone\", \"a\": [4.606, 4.005], \"b\": [5.573, 7.886], \"construction\": \"plasterboard\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w14\", \"floor\": \"stone\", \"a\": [7.762, -1.935], \"b\": [9.94, 6.797], \"construction\": \"stone\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w15\", \"floor\": \"stone\", \"a\": [0.0, 0.0], \"b\": [7.762, -1.935], \"construction\": \"stone\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w16\", \"floor\": \"stone\", \"a\": [1.21, 4.851], \"b\": [8.972, 2.916], \"construction\": \"plasterboard\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w17\", \"floor\": \"stone\", \"a\": [2.177, 8.733], \"b\": [9.94, 6.797], \"construction\": \"stone\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w18\", \"floor\": \"granary\", \"a\": [7.762, -1.935], \"b\": [9.94, 6.797], \"construction\": \"stone\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w19\", \"floor\": \"granary\", \"a\": [11.398, 2.311], \"b\": [12.365, 6.192], \"construction\": \"wet-wall\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w20\", \"floor\": \"granary\", \"a\": [13.584, -3.387], \"b\": [15.761, 5.346], \"construction\": \"stone\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w21\", \"floor\": \"granary\", \"a\": [7.762, -1.935], \"b\": [13.584, -3.387], \"construction\": \"stone\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w22\", \"floor\": \"granary\", \"a\": [8.972, 2.916], \"b\": [11.398, 2.311], \"construction\": \"wet-wall\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w23\", \"floor\": \"granary\", \"a\": [11.398, 2.311], \"b\": [14.794, 1.465], \"construction\": \"plasterboard\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w24\", \"floor\": \"granary\", \"a\": [9.94, 6.797], \"b\": [15.761, 5.346], \"construction\": \"stone\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w25\", \"floor\": \"bin\", \"a\": [0.0, 0.0], \"b\": [2.177, 8.733], \"construction\": \"stone\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w26\", \"floor\": \"bin\", \"a\": [3.881, -0.968], \"b\": [5.091, 3.884], \"construction\": \"plasterboard\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w27\", \"floor\": \"bin\", \"a\": [7.762, -1.935], \"b\": [9.94, 6.797], \"construction\": \"stone\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w28\", \"floor\": \"bin\", \"a\": [0.0, 0.0], \"b\": [7.762, -1.935], \"construction\": \"stone\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w29\", \"floor\": \"bin\", \"a\": [1.21, 4.851], \"b\": [8.972, 2.916], \"construction\": \"plasterboard\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w30\", \"floor\": \"bin\", \"a\": [2.177, 8.733], \"b\": [9.94, 6.797], \"construction\": \"stone\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w31\", \"floor\": \"shed\", \"a\": [12.622, -15.514], \"b\": [14.073, -9.693], \"construction\": \"timber-clad\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w32\", \"floor\": \"shed\", \"a\": [18.443, -16.966], \"b\": [19.895, -11.144], \"construction\": \"timber-clad\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w33\", \"floor\": \"shed\", \"a\": [12.622, -15.514], \"b\": [18.443, -16.966], \"construction\": \"timber-clad\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w34\", \"floor\": \"shed\", \"a\": [14.073, -9.693], \"b\": [19.895, -11.144], \"construction\": \"timber-clad\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w35\", \"floor\": \"studio\", \"a\": [150.0, 62.0], \"b\": [147.56, 67.481], \"construction\": \"timber-clad\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w36\", \"floor\": \"studio\", \"a\": [156.395, 64.847], \"b\": [153.954, 70.328], \"construction\": \"block-dense\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w37\", \"floor\": \"studio\", \"a\": [159.135, 66.067], \"b\": [156.695, 71.549], \"construction\": \"timber-clad\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w38\", \"floor\": \"studio\", \"a\": [150.0, 62.0], \"b\": [159.135, 66.067], \"construction\": \"timber-clad\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w39\", \"floor\": \"studio\", \"a\": [147.56, 67.481], \"b\": [156.695, 71.549], \"construction\": \"timber-clad\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w40\", \"floor\": \"loft\", \"a\": [150.0, 62.0], \"b\": [147.56, 67.481], \"construction\": \"timber-clad\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w41\", \"floor\": \"loft\", \"a\": [153.654, 63.627], \"b\": [151.214, 69.108], \"construction\": \"timber-clad\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w42\", \"floor\": \"loft\", \"a\": [150.0, 62.0], \"b\": [153.654, 63.627], \"construction\": \"timber-clad\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"wall\", \"element\": {\"id\": \"w43\", \"floor\": \"loft\", \"a\": [147.56, 67.481], \"b\": [151.214, 69.108], \"construction\": \"timber-clad\", \"rated\": false}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o1\", \"wall\": \"w4\", \"kind\": \"door\", \"offset_m\": 0.8, \"width_m\": 0.8, \"construction\": \"door-solid\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o2\", \"wall\": \"w10\", \"kind\": \"door\", \"offset_m\": 1.1, \"width_m\": 0.8, \"construction\": \"door-solid\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o3\", \"wall\": \"w3\", \"kind\": \"door\", \"offset_m\": 2.1, \"width_m\": 0.8, \"construction\": \"door-solid\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o4\", \"wall\": \"w5\", \"kind\": \"door\", \"offset_m\": 5.6, \"width_m\": 0.8, \"construction\": \"door-solid\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o5\", \"wall\": \"w16\", \"kind\": \"door\", \"offset_m\": 5.1, \"width_m\": 0.8, \"construction\": \"door-solid\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o6\", \"wall\": \"w13\", \"kind\": \"door\", \"offset_m\": 1.6, \"width_m\": 0.8, \"construction\": \"door-solid\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o7\", \"wall\": \"w22\", \"kind\": \"door\", \"offset_m\": 0.4, \"width_m\": 0.8, \"construction\": \"door-solid\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o8\", \"wall\": \"w23\", \"kind\": \"door\", \"offset_m\": 1.1, \"width_m\": 0.8, \"construction\": \"door-solid\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o9\", \"wall\": \"w29\", \"kind\": \"door\", \"offset_m\": 1.6, \"width_m\": 0.8, \"construction\": \"door-solid\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o10\", \"wall\": \"w29\", \"kind\": \"door\", \"offset_m\": 5.6, \"width_m\": 0.8, \"construction\": \"door-solid\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o11\", \"wall\": \"w36\", \"kind\": \"door\", \"offset_m\": 2.6, \"width_m\": 0.8, \"construction\": \"door-solid\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o12\", \"wall\": \"w6\", \"kind\": \"window\", \"offset_m\": 3.8, \"width_m\": 1.4, \"construction\": \"glass-clear\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o13\", \"wall\": \"w15\", \"kind\": \"window\", \"offset_m\": 2.4, \"width_m\": 1.2, \"construction\": \"glass-clear\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o14\", \"wall\": \"w15\", \"kind\": \"window\", \"offset_m\": 5.4, \"width_m\": 1.2, \"construction\": \"glass-clear\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o15\", \"wall\": \"w21\", \"kind\": \"window\", \"offset_m\": 2.4, \"width_m\": 1.2, \"construction\": \"glass-clear\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o16\", \"wall\": \"w28\", \"kind\": \"window\", \"offset_m\": 1.55, \"width_m\": 0.9, \"construction\": \"glass-clear\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o17\", \"wall\": \"w28\", \"kind\": \"window\", \"offset_m\": 5.55, \"width_m\": 0.9, \"construction\": \"glass-clear\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o18\", \"wall\": \"w8\", \"kind\": \"door\", \"offset_m\": 4.8, \"width_m\": 2.4, \"construction\": \"glass-clear\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o19\", \"wall\": \"w38\", \"kind\": \"door\", \"offset_m\": 2.0, \"width_m\": 3.0, \"construction\": \"glass-clear\"}}, {\"op\": \"put\", \"kind\": \"opening\", \"element\": {\"id\": \"o20\", \"wall\": \"w33\", \"kind\": \"gap\", \"offset_m\": 1.5, \"width_m\": 3.0, \"construction\": \"open-gap\"}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"wheel-wheel-room\", \"floor\": \"wheel\", \"name\": \"Wheel room\", \"use\": \"sensors\", \"outline\": [[0.0, 0.0], [4.851, -1.21], [5.94, 3.157], [1.089, 4.366]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"stairs\": false, \"outdoor\": false, \"water\": null, \"locks\": null}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"wheel-boot-hall\", \"floor\": \"wheel\", \"name\": \"Boot hall\", \"use\": \"everyday\", \"outline\": [[4.851, -1.21], [7.762, -1.935], [8.851, 2.431], [5.94, 3.157]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"stairs\": false, \"outdoor\": false, \"water\": null, \"locks\": null}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"wheel-plant-room\", \"floor\": \"wheel\", \"name\": \"Plant room\", \"use\": \"none\", \"outline\": [[1.089, 4.366], [4.485, 3.52], [5.573, 7.886], [2.177, 8.733]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"stairs\": false, \"outdoor\": false, \"water\": null, \"locks\": null}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"wheel-lower-stairs\", \"floor\": \"wheel\", \"name\": \"Lower stairs\", \"use\": \"calls\", \"outline\": [[4.485, 3.52], [8.851, 2.431], [9.94, 6.797], [5.573, 7.886]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"stairs\": true, \"outdoor\": false, \"water\": null, \"locks\": null}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"wheel-great-kitchen\", \"floor\": \"wheel\", \"name\": \"Great kitchen\", \"use\": \"calls\", \"outline\": [[7.762, -1.935], [13.584, -3.387], [15.761, 5.346], [9.94, 6.797]], \"overhead\": null, \"ceiling_height_m\": 4.0, \"open_above\": false, \"stairs\": false, \"outdoor\": false, \"water\": null, \"locks\": null}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"wheel-mill-terrace\", \"floor\": \"wheel\", \"name\": \"Mill terrace\", \"use\": \"everyday\", \"outline\": [[0.731, -5.335], [12.375, -8.238], [13.584, -3.387], [1.941, -0.484]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"stairs\": false, \"outdoor\": true, \"water\": null, \"locks\": null}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"stone-living-room\", \"floor\": \"stone\", \"name\": \"Living room\", \"use\": \"calls\", \"outline\": [[0.0, 0.0], [7.762, -1.935], [8.972, 2.916], [1.21, 4.851]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"stairs\": false, \"outdoor\": false, \"water\": null, \"locks\": null}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"stone-study\", \"floor\": \"stone\", \"name\": \"Study\", \"use\": \"calls\", \"outline\": [[1.21, 4.851], [4.606, 4.005], [5.573, 7.886], [2.177, 8.733]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"stairs\": false, \"outdoor\": false, \"water\": null, \"locks\": null}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"stone-stairs\", \"floor\": \"stone\", \"name\": \"Stairs\", \"use\": \"calls\", \"outline\": [[4.606, 4.005], [8.972, 2.916], [9.94, 6.797], [5.573, 7.886]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"stairs\": true, \"outdoor\": false, \"water\": null, \"locks\": null}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"granary-main-bedroom\", \"floor\": \"granary\", \"name\": \"Main bedroom\", \"use\": \"everyday\", \"outline\": [[7.762, -1.935], [13.584, -3.387], [14.794, 1.465], [8.972, 2.916]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"stairs\": false, \"outdoor\": false, \"water\": null, \"locks\": null}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"granary-bath\", \"floor\": \"granary\", \"name\": \"Bath\", \"use\": \"none\", \"outline\": [[8.972, 2.916], [11.398, 2.311], [12.365, 6.192], [9.94, 6.797]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"stairs\": false, \"outdoor\": false, \"water\": null, \"locks\": null}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"granary-dressing-room\", \"floor\": \"granary\", \"name\": \"Dressing room\", \"use\": \"everyday\", \"outline\": [[11.398, 2.311], [14.794, 1.465], [15.761, 5.346], [12.365, 6.192]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"stairs\": false, \"outdoor\": false, \"water\": null, \"locks\": null}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"bin-bedroom-2\", \"floor\": \"bin\", \"name\": \"Bedroom 2\", \"use\": \"everyday\", \"outline\": [[0.0, 0.0], [3.881, -0.968], [5.091, 3.884], [1.21, 4.851]], \"overhead\": null, \"ceiling_height_m\": 2.1, \"open_above\": false, \"stairs\": false, \"outdoor\": false, \"water\": null, \"locks\": null}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"bin-bedroom-3\", \"floor\": \"bin\", \"name\": \"Bedroom 3\", \"use\": \"everyday\", \"outline\": [[3.881, -0.968], [7.762, -1.935], [8.972, 2.916], [5.091, 3.884]], \"overhead\": null, \"ceiling_height_m\": 2.1, \"open_above\": false, \"stairs\": false, \"outdoor\": false, \"water\": null, \"locks\": null}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"bin-hoist-landing\", \"floor\": \"bin\", \"name\": \"Hoist landing\", \"use\": \"calls\", \"outline\": [[1.21, 4.851], [8.972, 2.916], [9.94, 6.797], [2.177, 8.733]], \"overhead\": null, \"ceiling_height_m\": 2.1, \"open_above\": false, \"stairs\": false, \"outdoor\": false, \"water\": null, \"locks\": null}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"shed-boat-bay\", \"floor\": \"shed\", \"name\": \"Boat bay\", \"use\": \"everyday\", \"outline\": [[12.622, -15.514], [18.443, -16.966], [19.895, -11.144], [14.073, -9.693]], \"overhead\": null, \"ceiling_height_m\": 3.0, \"open_above\": false, \"stairs\": false, \"outdoor\": false, \"water\": null, \"locks\": null}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"studio-painting-room\", \"floor\": \"studio\", \"name\": \"Painting room\", \"use\": \"calls\", \"outline\": [[150.0, 62.0], [156.395, 64.847], [153.954, 70.328], [147.56, 67.481]], \"overhead\": null, \"ceiling_height_m\": 4.4, \"open_above\": false, \"stairs\": false, \"outdoor\": false, \"water\": null, \"locks\": null}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"studio-kiln-room\", \"floor\": \"studio\", \"name\": \"Kiln room\", \"use\": \"sensors\", \"outline\": [[156.395, 64.847], [159.135, 66.067], [156.695, 71.549], [153.954, 70.328]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"stairs\": false, \"outdoor\": false, \"water\": null, \"locks\": null}}, {\"op\": \"put\", \"kind\": \"space\", \"element\": {\"id\": \"loft-sleeping-loft\", \"floor\": \"loft\", \"name\": \"Sleeping loft\", \"use\": \"everyday\", \"outline\": [[150.0, 62.0], [153.654, 63.627], [151.214, 69.108], [147.56, 67.481]], \"overhead\": null, \"ceiling_height_m\": null, \"open_above\": false, \"stairs\": false, \"outdoor\": false, \"water\": null, \"locks\": null}}, {\"op\": \"put\", \"kind\": \"riser\", \"element\": {\"id\": \"riser-1\", \"building\": \"mill\", \"name\": \"Sack hoist\", \"at\": [9.455, 6.506], \"lowest_level\": 0, \"highest_level\": 3}}, {\"op\": \"put\", \"kind\": \"riser\", \"element\": {\"id\": \"riser-2\", \"building\": \"studio\", \"name\": \"Loft ladder\", \"at\": [148.088, 67.279], \"lowest_level\": 0, \"highest_level\": 1}}, {\"op\": \"put\", \"kind\": \"duct\", \"element\": {\"id\": \"duct-orchard\", \"name\": \"Orchard duct\", \"from_floor\": \"wheel\", \"to_floor\": \"studio\", \"path\": [[15.52, 4.375], [60.0, 10.0], [110.0, 38.0], [150.0, 62.0]], \"depth_m\": 0.45, \"dug\": \"loam\"}}, {\"op\": \"put\", \"kind\": \"buried_service\", \"element\": {\"id\": \"buried-1\", \"name\": \"Old water main\", \"carries\": \"water\", \"path\": [[48.0, -22.0], [71.0, 18.0], [78.0, 52.0]], \"depth_m\": 0.8, \"found\": false}}, {\"op\": \"put\", \"kind\": \"buried_service\", \"element\": {\"id\": \"buried-2\", \"name\": \"Studio feed\", \"carries\": \"electricity\", \"path\": [[16.0, -6.0], [62.0, -4.0], [112.0, 33.0]], \"depth_m\": 0.6, \"found\": true}}, {\"op\": \"put\", \"kind\": \"equipment_room\", \"element\": {\"id\": \"rack\", \"floor\": \"wheel\", \"name\": \"Plant room shelf\", \"at\": [2.323, 7.666], \"rack_height_m\": 1.2, \"frame\": \"fellgate-w9\", \"battery\": null, \"stud_m\": null, \"vent_m3h\": 0.0}}, {\"op\": \"put\", \"kind\": \"far_point\", \"element\": {\"id\": \"far-gate\", \"name\": \"Orchard gate\", \"what\": \"gate\", \"at\": [96.0, 66.0], \"ground_m\": 1.4, \"mast_m\": 3.0, \"room\": null, \"room_mast_m\": 4.0, \"clients\": 0, \"cameras\": 1, \"doors\": 1, \"sensors\": 0, \"mbps\": null, \"delay_ms\": null, \"years\": 10, \"power\": \"none\", \"land\": \"trees\", \"services_known\": false, \"way\": \"\", \"cell_dbm\": null, \"cell_db\": null, \"profile\": [[30.0, -0.6], [62.0, 0.4], [85.0, 1.0]], \"trees\": [[48.0, 70.0, 5.5, 0.4]]}}, {\"op\": \"put\", \"kind\": \"far_point\", \"element\": {\"id\": \"far-stage\", \"name\": \"Landing stage\", \"what\": \"pond\", \"at\": [74.0, -46.0], \"ground_m\": -1.2, \"mast_m\": 3.0, \"room\": null, \"room_mast_m\": 4.0, \"clients\": 2, \"cameras\": 1, \"doors\": 0, \"sensors\": 0, \"mbps\": null, \"delay_ms\": null, \"years\": 10, \"power\": \"none\", \"land\": \"water\", \"services_known\": false, \"way\": \"\", \"cell_dbm\": null, \"cell_db\": null, \"profile\": [[18.0, -0.4], [30.0, -2.6], [68.0, -2.6]], \"trees\": []}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"ap-1\", \"floor\": \"wheel\", \"kind\": \"access_point\", \"model\": \"ravelmoor-c2\", \"name\": \"AP-1\", \"at\": [11.762, 1.705], \"height_m\": 4.0, \"mount\": \"ceiling\", \"azimuth_deg\": 14.0, \"tilt_deg\": 0.0, \"state\": \"new\", \"reduced\": false, \"disks\": null, \"redundancy\": null, \"splitter\": null}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"ap-2\", \"floor\": \"wheel\", \"kind\": \"access_point\", \"model\": \"ravelmoor-c2\", \"name\": \"AP-2\", \"at\": [2.958, 1.53], \"height_m\": 2.5, \"mount\": \"ceiling\", \"azimuth_deg\": 14.0, \"tilt_deg\": 0.0, \"state\": \"new\", \"reduced\": false, \"disks\": null, \"redundancy\": null, \"splitter\": null}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"ap-3\", \"floor\": \"stone\", \"kind\": \"access_point\", \"model\": \"ravelmoor-c6\", \"name\": \"AP-3\", \"at\": [6.401, 2.939], \"height_m\": 2.5, \"mount\": \"ceiling\", \"azimuth_deg\": 14.0, \"tilt_deg\": 0.0, \"state\": \"new\", \"reduced\": false, \"disks\": null, \"redundancy\": null, \"splitter\": null}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"ap-4\", \"floor\": \"granary\", \"kind\": \"access_point\", \"model\": \"ravelmoor-c2\", \"name\": \"AP-4\", \"at\": [11.641, 1.632], \"height_m\": 2.4, \"mount\": \"ceiling\", \"azimuth_deg\": 14.0, \"tilt_deg\": 0.0, \"state\": \"new\", \"reduced\": false, \"disks\": null, \"redundancy\": null, \"splitter\": null}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"ap-5\", \"floor\": \"bin\", \"kind\": \"access_point\", \"model\": \"ravelmoor-c2\", \"name\": \"AP-5\", \"at\": [5.818, 4.321], \"height_m\": 2.6, \"mount\": \"ceiling\", \"azimuth_deg\": 14.0, \"tilt_deg\": 0.0, \"state\": \"new\", \"reduced\": false, \"disks\": null, \"redundancy\": null, \"splitter\": null}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"ap-6\", \"floor\": \"wheel\", \"kind\": \"access_point\", \"model\": \"ravelmoor-t3\", \"name\": \"AP-6\", \"at\": [7.158, -4.361], \"height_m\": 2.2, \"mount\": \"pole\", \"azimuth_deg\": 14.0, \"tilt_deg\": 0.0, \"state\": \"new\", \"reduced\": false, \"disks\": null, \"redundancy\": null, \"splitter\": null}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"ap-7\", \"floor\": \"shed\", \"kind\": \"access_point\", \"model\": \"ravelmoor-x5\", \"name\": \"AP-7\", \"at\": [16.936, -10.612], \"height_m\": 2.5, \"mount\": \"ceiling\", \"azimuth_deg\": 14.0, \"tilt_deg\": 0.0, \"state\": \"new\", \"reduced\": false, \"disks\": null, \"redundancy\": null, \"splitter\": null}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"cam-1\", \"floor\": \"wheel\", \"kind\": \"camera\", \"model\": \"peltwick-turret\", \"name\": \"CAM-1\", \"at\": [13.366, -3.436], \"height_m\": 2.3, \"mount\": \"wall\", \"azimuth_deg\": 149.0, \"tilt_deg\": 0.0, \"state\": \"new\", \"reduced\": false, \"disks\": null, \"redundancy\": null, \"splitter\": null}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"cam-3\", \"floor\": \"wheel\", \"kind\": \"camera\", \"model\": \"peltwick-turret\", \"name\": \"CAM-3\", \"at\": [51.673, -20.098], \"height_m\": 2.3, \"mount\": \"pole\", \"azimuth_deg\": 149.0, \"tilt_deg\": 0.0, \"state\": \"new\", \"reduced\": false, \"disks\": null, \"redundancy\": null, \"splitter\": null}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"gw-1\", \"floor\": \"wheel\", \"kind\": \"sensor_gateway\", \"model\": \"quillbeck-gate\", \"name\": \"GW-1\", \"at\": [7.323, 2.503], \"height_m\": 2.4, \"mount\": \"wall\", \"azimuth_deg\": 14.0, \"tilt_deg\": 0.0, \"state\": \"new\", \"reduced\": false, \"disks\": null, \"redundancy\": null, \"splitter\": \"peltwick-d5\"}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"router\", \"floor\": \"wheel\", \"kind\": \"router\", \"model\": \"harrowfen-r4\", \"name\": \"Router\", \"at\": [3.051, 8.103], \"height_m\": 1.0, \"mount\": \"desk\", \"azimuth_deg\": 14.0, \"tilt_deg\": 0.0, \"state\": \"new\", \"reduced\": false, \"disks\": null, \"redundancy\": null, \"splitter\": null}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"television\", \"floor\": \"stone\", \"kind\": \"outlet\", \"model\": \"outlet-single\", \"name\": \"Television\", \"at\": [0.799, 2.377], \"height_m\": 0.3, \"mount\": \"wall\", \"azimuth_deg\": 14.0, \"tilt_deg\": 0.0, \"state\": \"new\", \"reduced\": false, \"disks\": null, \"redundancy\": null, \"splitter\": null}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"study-plate\", \"floor\": \"stone\", \"kind\": \"wall_plate\", \"model\": \"ravelmoor-w3\", \"name\": \"Study plate\", \"at\": [1.888, 6.744], \"height_m\": 0.4, \"mount\": \"wall\", \"azimuth_deg\": 104.0, \"tilt_deg\": 0.0, \"state\": \"new\", \"reduced\": false, \"disks\": null, \"redundancy\": null, \"splitter\": null}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"study-files\", \"floor\": \"stone\", \"kind\": \"storage\", \"model\": \"corrowby-store-2\", \"name\": \"Study files\", \"at\": [2.082, 6.283], \"height_m\": 0.8, \"mount\": \"desk\", \"azimuth_deg\": 14.0, \"tilt_deg\": 0.0, \"state\": \"new\", \"reduced\": false, \"disks\": 1, \"redundancy\": \"mirror\", \"splitter\": null}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"ap-8\", \"floor\": \"studio\", \"kind\": \"access_point\", \"model\": \"ravelmoor-c2\", \"name\": \"AP-8\", \"at\": [152.891, 66.571], \"height_m\": 2.8, \"mount\": \"ceiling\", \"azimuth_deg\": 336.0, \"tilt_deg\": 0.0, \"state\": \"new\", \"reduced\": false, \"disks\": null, \"redundancy\": null, \"splitter\": null}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"cam-2\", \"floor\": \"studio\", \"kind\": \"camera\", \"model\": \"peltwick-pan\", \"name\": \"CAM-2\", \"at\": [158.993, 65.895], \"height_m\": 2.6, \"mount\": \"wall\", \"azimuth_deg\": 336.0, \"tilt_deg\": 0.0, \"state\": \"new\", \"reduced\": false, \"disks\": null, \"redundancy\": null, \"splitter\": null}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"gw-2\", \"floor\": \"studio\", \"kind\": \"sensor_gateway\", \"model\": \"quillbeck-gate\", \"name\": \"GW-2\", \"at\": [154.574, 70.166], \"height_m\": 2.2, \"mount\": \"wall\", \"azimuth_deg\": 336.0, \"tilt_deg\": 0.0, \"state\": \"new\", \"reduced\": false, \"disks\": null, \"redundancy\": null, \"splitter\": null}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"old-1\", \"floor\": \"wheel\", \"kind\": \"access_point\", \"model\": \"old-router\", \"name\": \"Old router\", \"at\": [3.487, 8.2], \"height_m\": 1.1, \"mount\": \"wall\", \"azimuth_deg\": 0.0, \"tilt_deg\": 0.0, \"state\": \"retire\", \"reduced\": false, \"disks\": null, \"redundancy\": null, \"splitter\": null}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"old-2\", \"floor\": \"stone\", \"kind\": \"access_point\", \"model\": \"old-repeater\", \"name\": \"Repeater\", \"at\": [9.407, 5.9], \"height_m\": 0.4, \"mount\": \"wall\", \"azimuth_deg\": 0.0, \"tilt_deg\": 0.0, \"state\": \"retire\", \"reduced\": false, \"disks\": null, \"redundancy\": null, \"splitter\": null}}, {\"op\": \"put\", \"kind\": \"device\", \"element\": {\"id\": \"old-3\", \"floor\": \"studio\", \"kind\": \"access_point\", \"model\": \"old-open-box\", \"name\": \"Studio box\", \"at\": [153.62, 69.851], \"height_m\": 1.0, \"mount\": \"wall\", \"azimuth_deg\": 0.0, \"tilt_deg\": 0.0, \"state\": \"unknown\", \"reduced\": false, \"disks\": null, \"redundancy\": null, \"splitter\": null}}, {\"op\": \"put\", \"kind\": \"run\", \"element\": {\"id\": \"r-ap-3\", \"device\": \"ap-3\", \"category\": \"5e\", \"cables\": null, \"equipment_room\": null, \"over_air\": false, \"through\": null, \"shortest\": false, \"medium\": null}}, {\"op\": \"put\", \"kind\": \"run\", \"element\": {\"id\": \"r-gw-2\", \"device\": \"gw-2\", \"category\": null, \"cables\": null, \"equipment_room\": null, \"over_air\": false, \"through\": null, \"shortest\": false, \"medium\": \"fibre\"}}, {\"op\": \"put\", \"kind\": \"run\", \"element\": {\"id\": \"r-study-files\", \"device\": \"study-files\", \"category\": null, \"cables\": null, \"equipment_room\": null, \"over_air\": false, \"through\": \"study-plate\", \"shortest\": false, \"medium\": null}}, {\"op\": \"put\", \"kind\": \"switch\", \"element\": {\"id\": \"sw-1\", \"equipment_room\": \"rack\", \"name\": \"SW-1\", \"model\": \"dunthrip-s8\", \"state\": \"new\"}}, {\"op\": \"put\", \"kind\": \"injector\", \"element\": {\"id\": \"inj-1\", \"device\": \"ap-3\", \"model\": \"peltwick-i15\"}}, {\"op\": \"put\", \"kind\": \"extender\", \"element\": {\"id\": \"ext-1\", \"device\": \"cam-2\", \"model\": \"peltwick-e1\", \"share\": 0.5}}, {\"op\": \"put\", \"kind\": \"network\", \"element\": {\"id\": \"net-main\", \"name\": \"Family\", \"purpose\": \"main\", \"vlan\": 1, \"subnet\": \"192.168.1.0/24\", \"expected_clients\": 25, \"client_isolation\": false, \"reaches\": [], \"shut\": [], \"internet\": null, \"lease_h\": null, \"pool_first\": null, \"pool_last\": null, \"limit_all_mbps\": null}}, {\"op\": \"put\", \"kind\": \"network\", \"element\": {\"id\": \"net-devices\", \"name\": \"Things\", \"purpose\": \"devices\", \"vlan\": 30, \"subnet\": \"192.168.30.0/24\", \"expected_clients\": 20, \"client_isolation\": false, \"reaches\": [\"net-main\"], \"shut\": [], \"internet\": null, \"lease_h\": null, \"pool_first\": null, \"pool_last\": null, \"limit_all_mbps\": null}}, {\"op\": \"put\", \"kind\": \"network\", \"element\": {\"id\": \"net-guest\", \"name\": \"Guests\", \"purpose\": \"guest\", \"vlan\": 20, \"subnet\": \"192.168.20.0/24\", \"expected_clients\": 12, \"client_isolation\": true, \"reaches\": [], \"shut\": [], \"internet\": null, \"lease_h\": null, \"pool_first\": null, \"pool_last\": null, \"limit_all_mbps\": null}}, {\"op\": \"put\", \"kind\": \"wireless_name\", \"element\": {\"id\": \"ssid-main\", \"network\": \"net-main\", \"ssid\": \"Quernbeck\", \"bands\": [\"2.4\", \"5\"], \"security\": \"wpa3_wpa2\", \"client_isolation\": false, \"fast_transition\": null, \"access_points\": [], \"steering\": null, \"dtim\": null, \"lowest_rate_mbps\": null, \"limit_mbps\": null, \"from_hour\": null, \"to_hour\": null}}, {\"op\": \"put\", \"kind\": \"wireless_name\", \"element\": {\"id\": \"ssid-guest\", \"network\": \"net-guest\", \"ssid\": \"Quernbeck guests\", \"bands\": [\"2.4\", \"5\"], \"security\": \"wpa3_wpa2\", \"client_isolation\": true, \"fast_transition\": null, \"access_points\": [], \"steering\": null, \"dtim\": null, \"lowest_rate_mbps\": null, \"limit_mbps\": null, \"from_hour\": null, \"to_hour\": null}}, {\"op\": \"put\", \"kind\": \"wireless_name\", \"element\": {\"id\": \"ssid-things\", \"network\": \"net-devices\", \"ssid\": \"Quernbeck things\", \"bands\": [\"2.4\"], \"security\": \"wpa3_wpa2\", \"client_isolation\": false, \"fast_transition\": true, \"access_points\": [], \"steering\": null, \"dtim\": null, \"lowest_rate_mbps\": null, \"limit_mbps\": null, \"from_hour\": null, \"to_hour\": null}}, {\"op\": \"put\", \"kind\": \"radio\", \"element\": {\"id\": \"rd-1\", \"device\": \"ap-8\", \"band\": \"5\", \"on\": true, \"channel\": null, \"power_dbm\": 23.0}}, {\"op\": \"put\", \"kind\": \"radio\", \"element\": {\"id\": \"rd-2\", \"device\": \"ap-4\", \"band\": \"2.4\", \"on\": true, \"channel\": 13, \"power_dbm\": null}}, {\"op\": \"put\", \"kind\": \"radio\", \"element\": {\"id\": \"rd-11\", \"device\": \"ap-1\", \"band\": \"2.4\", \"on\": true, \"channel\": 6, \"power_dbm\": 17.0}}, {\"op\": \"put\", \"kind\": \"radio\", \"element\": {\"id\": \"rd-13\", \"device\": \"ap-3\", \"band\": \"2.4\", \"on\": true, \"channel\": 6, \"power_dbm\": 17.0}}, {\"op\": \"put\", \"kind\": \"radio\", \"element\": {\"id\": \"rd-15\", \"device\": \"ap-5\", \"band\": \"2.4\", \"on\": true, \"channel\": 6, \"power_dbm\": 17.0}}, {\"op\": \"put\", \"kind\": \"radio\", \"element\": {\"id\": \"rd-16\", \"device\": \"ap-6\", \"band\": \"2.4\", \"on\": true, \"channel\": 6, \"power_dbm\": 17.0}}, {\"op\": \"put\", \"kind\": \"own_figure\", \"element\": {\"id\": \"own-1\", \"figure\": \"settings.lowest_rate_mbps.devices\", \"value\": \"1\"}}, {\"op\": \"put\", \"kind\": \"line_entry\", \"element\": {\"id\": \"line-1\", \"floor\": \"wheel\", \"name\": \"Line, from the lane\", \"at\": [2.323, 8.49]}}, {\"op\": \"put\", \"kind\": \"pain\", \"element\": {\"id\": \"pain-1\", \"floor\": \"stone\", \"kind\": \"dead\", \"at\": [3.27, 6.914], \"words\": \"Nothing in the study, I work in the kitchen.\"}}, {\"op\": \"put\", \"kind\": \"pain\", \"element\": {\"id\": \"pain-2\", \"floor\": \"stone\", \"kind\": \"drops\", \"at\": [7.03, 5.461], \"words\": \"Calls break off on the stairs.\"}}, {\"op\": \"put\", \"kind\": \"pain\", \"element\": {\"id\": \"pain-3\", \"floor\": \"granary\", \"kind\": \"slow\", \"at\": [11.157, -0.721], \"words\": \"Films stop to think, at night above all.\"}}, {\"op\": \"put\", \"kind\": \"pain\", \"element\": {\"id\": \"pain-4\", \"floor\": \"wheel\", \"kind\": \"heap\", \"at\": [3.003, 7.084], \"words\": \"Nobody knows what these wires are for.\"}}, {\"op\": \"put\", \"kind\": \"pain\", \"element\": {\"id\": \"pain-5\", \"floor\": \"bin\", \"kind\": \"one_device\", \"at\": [2.424, 1.457], \"words\": \"The heating\'s sender drops off for good.\"}}, {\"op\": \"put\", \"kind\": \"client_group\", \"element\": {\"id\": \"who-1\", \"space\": \"wheel-great-kitchen\", \"kind\": \"phone\", \"count\": 4, \"wired\": 0, \"old\": false}}, {\"op\": \"put\", \"kind\": \"client_group\", \"element\": {\"id\": \"who-2\", \"space\": \"wheel-great-kitchen\", \"kind\": \"laptop\", \"count\": 2, \"wired\": 0, \"old\": false}}, {\"op\": \"put\", \"kind\": \"client_group\", \"element\": {\"id\": \"who-3\", \"space\": \"stone-living-room\", \"kind\": \"television\", \"count\": 1, \"wired\": 1, \"old\": false}}, {\"op\": \"put\", \"kind\": \"client_group\", \"element\": {\"id\": \"who-4\", \"space\": \"stone-living-room\", \"kind\": \"console\", \"count\": 1, \"wired\": 1, \"old\": false}}, {\"op\": \"put\", \"kind\": \"client_group\", \"element\": {\"id\": \"who-5\", \"space\": \"stone-study\", \"kind\": \"desk_computer\", \"count\": 1, \"wired\": 1, \"old\": false}}, {\"op\": \"put\", \"kind\": \"client_group\", \"element\": {\"id\": \"who-6\", \"space\": \"stone-study\", \"kind\": \"storage\", \"count\": 1, \"wired\": 1, \"old\": false}}, {\"op\": \"put\", \"kind\": \"client_group\", \"element\": {\"id\": \"who-7\", \"space\": \"wheel-boot-hall\", \"kind\": \"doorbell\", \"count\": 1, \"wired\": 1, \"old\": false}}, {\"op\": \"put\", \"kind\": \"client_group\", \"element\": {\"id\": \"who-8\", \"space\": \"studio-painting-room\", \"kind\": \"laptop\", \"count\": 2, \"wired\": 0, \"old\": false}}, {\"op\": \"put\", \"kind\": \"client_group\", \"element\": {\"id\": \"who-old\", \"space\": \"bin-bedroom-2\", \"kind\": \"sensor\", \"count\": 3, \"wired\": 0, \"old\": true}}, {\"op\": \"put\", \"kind\": \"habit\", \"element\": {\"id\": \"walk-1\", \"from_space\": \"wheel-great-kitchen\", \"to_space\": \"wheel-mill-terrace\"}}, {\"op\": \"put\", \"kind\": \"habit\", \"element\": {\"id\": \"walk-2\", \"from_space\": \"stone-study\", \"to_space\": \"wheel-great-kitchen\"}}, {\"op\": \"put\", \"kind\": \"habit\", \"element\": {\"id\": \"walk-3\", \"from_space\": \"wheel-great-kitchen\", \"to_space\": \"studio-painting-room\"}}, {\"op\": \"put\", \"kind\": \"zone\", \"element\": {\"id\": \"zone-1\", \"floor\": \"granary\", \"kind\": \"later\", \"name\": \"Guest rooms in the attic\'s end\", \"outline\": [[7.762, -1.935], [13.584, -3.387], [14.794, 1.465], [8.972, 2.916]], \"access_points\": 1, \"outlets\": 4, \"cameras\": 0}}, {\"op\": \"put\", \"kind\": \"zone\", \"element\": {\"id\": \"zone-2\", \"floor\": \"stone\", \"kind\": \"no_drilling\", \"name\": \"Listed fireplace wall\", \"outline\": [[0.0, 0.0], [0.776, -0.194], [1.986, 4.658], [1.21, 4.851]], \"access_points\": 0, \"outlets\": 0, \"cameras\": 0}}, {\"op\": \"put\", \"kind\": \"old_cable\", \"element\": {\"id\": \"old-cable-1\", \"floor\": \"wheel\", \"name\": \"Grey cable to the kitchen\", \"a\": [3.051, 7.69], \"b\": [14.67, 5.103], \"category\": \"5e\", \"condition\": \"untested\", \"tested_mbps\": null, \"state\": \"unknown\"}}, {\"op\": \"put\", \"kind\": \"old_cable\", \"element\": {\"id\": \"old-cable-2\", \"floor\": \"wheel\", \"name\": \"Telephone wire\", \"a\": [2.469, 8.248], \"b\": [5.919, -1.063], \"category\": null, \"condition\": \"damaged\", \"tested_mbps\": null, \"state\": \"retire\"}}, {\"op\": \"put\", \"kind\": \"panel\", \"element\": {\"id\": \"panel-1\", \"floor\": \"wheel\", \"name\": \"Panel\", \"at\": [1.5, 6.016], \"azimuth_deg\": 104.0}}, {\"op\": \"put\", \"kind\": \"socket\", \"element\": {\"id\": \"socket-1\", \"floor\": \"wheel\", \"name\": \"Plant socket\", \"at\": [1.887, 7.156], \"height_m\": 0.6, \"panel\": null, \"circuit\": \"\", \"state\": \"keep\"}}, {\"op\": \"put\", \"kind\": \"socket\", \"element\": {\"id\": \"socket-2\", \"floor\": \"stone\", \"name\": \"Study socket\", \"at\": [1.597, 5.992], \"height_m\": 0.3, \"panel\": null, \"circuit\": \"\", \"state\": \"keep\"}}, {\"op\": \"put\", \"kind\": \"light\", \"element\": {\"id\": \"light-1\", \"floor\": \"wheel\", \"name\": \"Kitchen lamp\", \"at\": [12.125, 3.161]}}, {\"op\": \"put\", \"kind\": \"light\", \"element\": {\"id\": \"light-2\", \"floor\": \"wheel\", \"name\": \"Table lamp\", \"at\": [9.944, 0.613]}}]',NULL);
/*!40000 ALTER TABLE `journal` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `light`
--

DROP TABLE IF EXISTS `light`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `light` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `floor` varchar(40) NOT NULL,
  `name` varchar(120) NOT NULL,
  `at` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`at`)),
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`floor`),
  CONSTRAINT `light_ibfk_1` FOREIGN KEY (`project_id`, `floor`) REFERENCES `floor` (`project_id`, `id`),
  CONSTRAINT `light_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `light`
--

LOCK TABLES `light` WRITE;
/*!40000 ALTER TABLE `light` DISABLE KEYS */;
INSERT INTO `light` VALUES
('p-68af6ac7b74f','light-1',1,'wheel','Kitchen lamp','[12.125, 3.161]'),
('p-68af6ac7b74f','light-2',2,'wheel','Table lamp','[9.944, 0.613]');
/*!40000 ALTER TABLE `light` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `line_entry`
--

DROP TABLE IF EXISTS `line_entry`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `line_entry` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `floor` varchar(40) NOT NULL,
  `name` varchar(120) NOT NULL,
  `at` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`at`)),
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`floor`),
  CONSTRAINT `line_entry_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE,
  CONSTRAINT `line_entry_ibfk_2` FOREIGN KEY (`project_id`, `floor`) REFERENCES `floor` (`project_id`, `id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `line_entry`
--

LOCK TABLES `line_entry` WRITE;
/*!40000 ALTER TABLE `line_entry` DISABLE KEYS */;
INSERT INTO `line_entry` VALUES
('p-68af6ac7b74f','line-1',1,'wheel','Line, from the lane','[2.323, 8.49]');
/*!40000 ALTER TABLE `line_entry` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `mains_route`
--

DROP TABLE IF EXISTS `mains_route`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `mains_route` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `floor` varchar(40) NOT NULL,
  `name` varchar(120) NOT NULL,
  `path` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`path`)),
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`floor`),
  CONSTRAINT `mains_route_ibfk_1` FOREIGN KEY (`project_id`, `floor`) REFERENCES `floor` (`project_id`, `id`),
  CONSTRAINT `mains_route_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `mains_route`
--

LOCK TABLES `mains_route` WRITE;
/*!40000 ALTER TABLE `mains_route` DISABLE KEYS */;
/*!40000 ALTER TABLE `mains_route` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `membership`
--

DROP TABLE IF EXISTS `membership`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `membership` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `network` varchar(40) NOT NULL,
  `device` varchar(40) DEFAULT NULL,
  `switch` varchar(40) DEFAULT NULL,
  `port` int(11) NOT NULL,
  `given` tinyint(1) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`network`),
  KEY `project_id_2` (`project_id`,`device`),
  KEY `project_id_3` (`project_id`,`switch`),
  CONSTRAINT `membership_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE,
  CONSTRAINT `membership_ibfk_2` FOREIGN KEY (`project_id`, `network`) REFERENCES `network` (`project_id`, `id`),
  CONSTRAINT `membership_ibfk_3` FOREIGN KEY (`project_id`, `device`) REFERENCES `device` (`project_id`, `id`),
  CONSTRAINT `membership_ibfk_4` FOREIGN KEY (`project_id`, `switch`) REFERENCES `switch` (`project_id`, `id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `membership`
--

LOCK TABLES `membership` WRITE;
/*!40000 ALTER TABLE `membership` DISABLE KEYS */;
/*!40000 ALTER TABLE `membership` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `neighbour`
--

DROP TABLE IF EXISTS `neighbour`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `neighbour` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `floor` varchar(40) NOT NULL,
  `name` varchar(120) NOT NULL,
  `at` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`at`)),
  `band` varchar(40) NOT NULL,
  `channel` int(11) NOT NULL,
  `width_mhz` int(11) NOT NULL,
  `level_dbm` double NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`floor`),
  CONSTRAINT `neighbour_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE,
  CONSTRAINT `neighbour_ibfk_2` FOREIGN KEY (`project_id`, `floor`) REFERENCES `floor` (`project_id`, `id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `neighbour`
--

LOCK TABLES `neighbour` WRITE;
/*!40000 ALTER TABLE `neighbour` DISABLE KEYS */;
/*!40000 ALTER TABLE `neighbour` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `network`
--

DROP TABLE IF EXISTS `network`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `network` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `name` varchar(120) NOT NULL,
  `purpose` varchar(40) NOT NULL,
  `vlan` int(11) NOT NULL,
  `subnet` varchar(43) NOT NULL,
  `expected_clients` int(11) NOT NULL,
  `client_isolation` tinyint(1) NOT NULL,
  `reaches` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`reaches`)),
  `shut` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`shut`)),
  `internet` tinyint(1) DEFAULT NULL,
  `lease_h` int(11) DEFAULT NULL,
  `pool_first` int(11) DEFAULT NULL,
  `pool_last` int(11) DEFAULT NULL,
  `limit_all_mbps` double DEFAULT NULL,
  PRIMARY KEY (`project_id`,`id`),
  CONSTRAINT `network_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `network`
--

LOCK TABLES `network` WRITE;
/*!40000 ALTER TABLE `network` DISABLE KEYS */;
INSERT INTO `network` VALUES
('p-68af6ac7b74f','net-devices',2,'Things','devices',30,'192.168.30.0/24',20,0,'[\"net-main\"]','[]',NULL,NULL,NULL,NULL,NULL),
('p-68af6ac7b74f','net-guest',3,'Guests','guest',20,'192.168.20.0/24',12,1,'[]','[]',NULL,NULL,NULL,NULL,NULL),
('p-68af6ac7b74f','net-main',1,'Family','main',1,'192.168.1.0/24',25,0,'[]','[]',NULL,NULL,NULL,NULL,NULL);
/*!40000 ALTER TABLE `network` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `old_cable`
--

DROP TABLE IF EXISTS `old_cable`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `old_cable` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `floor` varchar(40) NOT NULL,
  `name` varchar(120) NOT NULL,
  `a` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`a`)),
  `b` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`b`)),
  `category` varchar(40) DEFAULT NULL,
  `condition` varchar(40) NOT NULL,
  `state` varchar(40) NOT NULL,
  `tested_mbps` int(11) DEFAULT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`floor`),
  CONSTRAINT `old_cable_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE,
  CONSTRAINT `old_cable_ibfk_2` FOREIGN KEY (`project_id`, `floor`) REFERENCES `floor` (`project_id`, `id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `old_cable`
--

LOCK TABLES `old_cable` WRITE;
/*!40000 ALTER TABLE `old_cable` DISABLE KEYS */;
INSERT INTO `old_cable` VALUES
('p-68af6ac7b74f','old-cable-1',1,'wheel','Grey cable to the kitchen','[3.051, 7.69]','[14.67, 5.103]','5e','untested','unknown',NULL),
('p-68af6ac7b74f','old-cable-2',2,'wheel','Telephone wire','[2.469, 8.248]','[5.919, -1.063]',NULL,'damaged','retire',NULL);
/*!40000 ALTER TABLE `old_cable` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `opening`
--

DROP TABLE IF EXISTS `opening`;
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

--
-- Dumping data for table `opening`
--

LOCK TABLES `opening` WRITE;
/*!40000 ALTER TABLE `opening` DISABLE KEYS */;
INSERT INTO `opening` VALUES
('p-68af6ac7b74f','o1',1,'w4','door',0.8,0.8,'door-solid'),
('p-68af6ac7b74f','o10',10,'w29','door',5.6,0.8,'door-solid'),
('p-68af6ac7b74f','o11',11,'w36','door',2.6,0.8,'door-solid'),
('p-68af6ac7b74f','o12',12,'w6','window',3.8,1.4,'glass-clear'),
('p-68af6ac7b74f','o13',13,'w15','window',2.4,1.2,'glass-clear'),
('p-68af6ac7b74f','o14',14,'w15','window',5.4,1.2,'glass-clear'),
('p-68af6ac7b74f','o15',15,'w21','window',2.4,1.2,'glass-clear'),
('p-68af6ac7b74f','o16',16,'w28','window',1.55,0.9,'glass-clear'),
('p-68af6ac7b74f','o17',17,'w28','window',5.55,0.9,'glass-clear'),
('p-68af6ac7b74f','o18',18,'w8','door',4.8,2.4,'glass-clear'),
('p-68af6ac7b74f','o19',19,'w38','door',2,3,'glass-clear'),
('p-68af6ac7b74f','o2',2,'w10','door',1.1,0.8,'door-solid'),
('p-68af6ac7b74f','o20',20,'w33','gap',1.5,3,'open-gap'),
('p-68af6ac7b74f','o3',3,'w3','door',2.1,0.8,'door-solid'),
('p-68af6ac7b74f','o4',4,'w5','door',5.6,0.8,'door-solid'),
('p-68af6ac7b74f','o5',5,'w16','door',5.1,0.8,'door-solid'),
('p-68af6ac7b74f','o6',6,'w13','door',1.6,0.8,'door-solid'),
('p-68af6ac7b74f','o7',7,'w22','door',0.4,0.8,'door-solid'),
('p-68af6ac7b74f','o8',8,'w23','door',1.1,0.8,'door-solid'),
('p-68af6ac7b74f','o9',9,'w29','door',1.6,0.8,'door-solid');
/*!40000 ALTER TABLE `opening` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `own_figure`
--

DROP TABLE IF EXISTS `own_figure`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `own_figure` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `figure` varchar(120) NOT NULL,
  `value` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`value`)),
  PRIMARY KEY (`project_id`,`id`),
  CONSTRAINT `own_figure_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `own_figure`
--

LOCK TABLES `own_figure` WRITE;
/*!40000 ALTER TABLE `own_figure` DISABLE KEYS */;
INSERT INTO `own_figure` VALUES
('p-68af6ac7b74f','own-1',1,'settings.lowest_rate_mbps.devices','\"1\"');
/*!40000 ALTER TABLE `own_figure` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `pain`
--

DROP TABLE IF EXISTS `pain`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `pain` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `floor` varchar(40) NOT NULL,
  `kind` varchar(40) NOT NULL,
  `at` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`at`)),
  `words` varchar(400) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`floor`),
  CONSTRAINT `pain_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE,
  CONSTRAINT `pain_ibfk_2` FOREIGN KEY (`project_id`, `floor`) REFERENCES `floor` (`project_id`, `id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `pain`
--

LOCK TABLES `pain` WRITE;
/*!40000 ALTER TABLE `pain` DISABLE KEYS */;
INSERT INTO `pain` VALUES
('p-68af6ac7b74f','pain-1',1,'stone','dead','[3.27, 6.914]','Nothing in the study, I work in the kitchen.'),
('p-68af6ac7b74f','pain-2',2,'stone','drops','[7.03, 5.461]','Calls break off on the stairs.'),
('p-68af6ac7b74f','pain-3',3,'granary','slow','[11.157, -0.721]','Films stop to think, at night above all.'),
('p-68af6ac7b74f','pain-4',4,'wheel','heap','[3.003, 7.084]','Nobody knows what these wires are for.'),
('p-68af6ac7b74f','pain-5',5,'bin','one_device','[2.424, 1.457]','The heating\'s sender drops off for good.');
/*!40000 ALTER TABLE `pain` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `panel`
--

DROP TABLE IF EXISTS `panel`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `panel` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `floor` varchar(40) NOT NULL,
  `name` varchar(120) NOT NULL,
  `at` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`at`)),
  `azimuth_deg` double NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`floor`),
  CONSTRAINT `panel_ibfk_1` FOREIGN KEY (`project_id`, `floor`) REFERENCES `floor` (`project_id`, `id`),
  CONSTRAINT `panel_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `panel`
--

LOCK TABLES `panel` WRITE;
/*!40000 ALTER TABLE `panel` DISABLE KEYS */;
INSERT INTO `panel` VALUES
('p-68af6ac7b74f','panel-1',1,'wheel','Panel','[1.5, 6.016]',104);
/*!40000 ALTER TABLE `panel` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `paper`
--

DROP TABLE IF EXISTS `paper`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `paper` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `kind` varchar(40) NOT NULL,
  `name` varchar(120) NOT NULL,
  `revision` int(11) NOT NULL,
  `made` datetime NOT NULL DEFAULT current_timestamp(),
  `data` longblob NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  CONSTRAINT `paper_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `paper`
--

LOCK TABLES `paper` WRITE;
/*!40000 ALTER TABLE `paper` DISABLE KEYS */;
/*!40000 ALTER TABLE `paper` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `picture`
--

DROP TABLE IF EXISTS `picture`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `picture` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `media` varchar(40) NOT NULL,
  `width_px` int(11) NOT NULL,
  `height_px` int(11) NOT NULL,
  `data` longblob NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  CONSTRAINT `picture_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `picture`
--

LOCK TABLES `picture` WRITE;
/*!40000 ALTER TABLE `picture` DISABLE KEYS */;
/*!40000 ALTER TABLE `picture` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `port_pin`
--

DROP TABLE IF EXISTS `port_pin`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `port_pin` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `switch` varchar(40) NOT NULL,
  `port` int(11) NOT NULL,
  `device` varchar(40) NOT NULL,
  `cable` int(11) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`switch`),
  KEY `project_id_2` (`project_id`,`device`),
  CONSTRAINT `port_pin_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE,
  CONSTRAINT `port_pin_ibfk_2` FOREIGN KEY (`project_id`, `switch`) REFERENCES `switch` (`project_id`, `id`),
  CONSTRAINT `port_pin_ibfk_3` FOREIGN KEY (`project_id`, `device`) REFERENCES `device` (`project_id`, `id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `port_pin`
--

LOCK TABLES `port_pin` WRITE;
/*!40000 ALTER TABLE `port_pin` DISABLE KEYS */;
/*!40000 ALTER TABLE `port_pin` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `portal`
--

DROP TABLE IF EXISTS `portal`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `portal` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `network` varchar(40) NOT NULL,
  `way` varchar(40) NOT NULL,
  `session_h` int(11) NOT NULL,
  `asks` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`asks`)),
  `terms` varchar(4000) NOT NULL,
  `kept_days` int(11) DEFAULT NULL,
  `law` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`law`)),
  `told_by` varchar(120) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`network`),
  CONSTRAINT `portal_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE,
  CONSTRAINT `portal_ibfk_2` FOREIGN KEY (`project_id`, `network`) REFERENCES `network` (`project_id`, `id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `portal`
--

LOCK TABLES `portal` WRITE;
/*!40000 ALTER TABLE `portal` DISABLE KEYS */;
/*!40000 ALTER TABLE `portal` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `practice`
--

DROP TABLE IF EXISTS `practice`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `practice` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `name` varchar(120) NOT NULL,
  `choices` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`choices`)),
  PRIMARY KEY (`project_id`,`id`),
  CONSTRAINT `practice_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `practice`
--

LOCK TABLES `practice` WRITE;
/*!40000 ALTER TABLE `practice` DISABLE KEYS */;
/*!40000 ALTER TABLE `practice` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `project`
--

DROP TABLE IF EXISTS `project`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `project` (
  `id` varchar(40) NOT NULL,
  `name` varchar(120) NOT NULL,
  `revision` int(11) NOT NULL,
  `created` datetime NOT NULL DEFAULT current_timestamp(),
  `opened` datetime(6) NOT NULL DEFAULT current_timestamp(6),
  `archived` tinyint(1) NOT NULL,
  PRIMARY KEY (`id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `project`
--

LOCK TABLES `project` WRITE;
/*!40000 ALTER TABLE `project` DISABLE KEYS */;
INSERT INTO `project` VALUES
('p-68af6ac7b74f','The watermill',1,'2026-12-02 00:14:25','2026-12-02 00:14:25.442441',0);
/*!40000 ALTER TABLE `project` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `rack_place`
--

DROP TABLE IF EXISTS `rack_place`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `rack_place` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `equipment_room` varchar(40) NOT NULL,
  `thing` varchar(120) NOT NULL,
  `unit` int(11) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`equipment_room`),
  CONSTRAINT `rack_place_ibfk_1` FOREIGN KEY (`project_id`, `equipment_room`) REFERENCES `equipment_room` (`project_id`, `id`),
  CONSTRAINT `rack_place_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `rack_place`
--

LOCK TABLES `rack_place` WRITE;
/*!40000 ALTER TABLE `rack_place` DISABLE KEYS */;
/*!40000 ALTER TABLE `rack_place` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `radio`
--

DROP TABLE IF EXISTS `radio`;
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

--
-- Dumping data for table `radio`
--

LOCK TABLES `radio` WRITE;
/*!40000 ALTER TABLE `radio` DISABLE KEYS */;
INSERT INTO `radio` VALUES
('p-68af6ac7b74f','rd-1',1,'ap-8','5',1,NULL,23),
('p-68af6ac7b74f','rd-11',3,'ap-1','2.4',1,6,17),
('p-68af6ac7b74f','rd-13',4,'ap-3','2.4',1,6,17),
('p-68af6ac7b74f','rd-15',5,'ap-5','2.4',1,6,17),
('p-68af6ac7b74f','rd-16',6,'ap-6','2.4',1,6,17),
('p-68af6ac7b74f','rd-2',2,'ap-4','2.4',1,13,NULL);
/*!40000 ALTER TABLE `radio` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `record`
--

DROP TABLE IF EXISTS `record`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `record` (
  `number` int(11) NOT NULL AUTO_INCREMENT,
  `project_id` varchar(40) NOT NULL,
  `kind` varchar(40) NOT NULL,
  `at` datetime(6) NOT NULL,
  `author` varchar(120) NOT NULL,
  `body` longtext NOT NULL,
  `sent` varchar(40) DEFAULT NULL,
  `written` datetime(6) DEFAULT NULL,
  PRIMARY KEY (`number`),
  UNIQUE KEY `record_said` (`project_id`,`kind`,`sent`),
  CONSTRAINT `record_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `record`
--

LOCK TABLES `record` WRITE;
/*!40000 ALTER TABLE `record` DISABLE KEYS */;
/*!40000 ALTER TABLE `record` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `riser`
--

DROP TABLE IF EXISTS `riser`;
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

--
-- Dumping data for table `riser`
--

LOCK TABLES `riser` WRITE;
/*!40000 ALTER TABLE `riser` DISABLE KEYS */;
INSERT INTO `riser` VALUES
('p-68af6ac7b74f','riser-1',1,'mill','Sack hoist','[9.455, 6.506]',0,3),
('p-68af6ac7b74f','riser-2',2,'studio','Loft ladder','[148.088, 67.279]',0,1);
/*!40000 ALTER TABLE `riser` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `run`
--

DROP TABLE IF EXISTS `run`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `run` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `device` varchar(40) NOT NULL,
  `category` varchar(40) DEFAULT NULL,
  `cables` int(11) DEFAULT NULL,
  `equipment_room` varchar(40) DEFAULT NULL,
  `over_air` tinyint(1) NOT NULL,
  `through` varchar(40) DEFAULT NULL,
  `shortest` tinyint(1) NOT NULL,
  `medium` varchar(40) DEFAULT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`device`),
  KEY `run_equipment_room` (`project_id`,`equipment_room`),
  KEY `run_through` (`project_id`,`through`),
  CONSTRAINT `run_equipment_room` FOREIGN KEY (`project_id`, `equipment_room`) REFERENCES `equipment_room` (`project_id`, `id`),
  CONSTRAINT `run_ibfk_1` FOREIGN KEY (`project_id`, `device`) REFERENCES `device` (`project_id`, `id`),
  CONSTRAINT `run_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE,
  CONSTRAINT `run_through` FOREIGN KEY (`project_id`, `through`) REFERENCES `device` (`project_id`, `id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `run`
--

LOCK TABLES `run` WRITE;
/*!40000 ALTER TABLE `run` DISABLE KEYS */;
INSERT INTO `run` VALUES
('p-68af6ac7b74f','r-ap-3',1,'ap-3','5e',NULL,NULL,0,NULL,0,NULL),
('p-68af6ac7b74f','r-gw-2',2,'gw-2',NULL,NULL,NULL,0,NULL,0,'fibre'),
('p-68af6ac7b74f','r-study-files',3,'study-files',NULL,NULL,NULL,0,'study-plate',0,NULL);
/*!40000 ALTER TABLE `run` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `sealed_key`
--

DROP TABLE IF EXISTS `sealed_key`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `sealed_key` (
  `project_id` varchar(40) NOT NULL,
  `of` varchar(120) NOT NULL,
  `token` text NOT NULL,
  `how` varchar(40) NOT NULL,
  `bits` double NOT NULL,
  `made` datetime(6) NOT NULL,
  `author` varchar(120) NOT NULL,
  `parts` int(11) NOT NULL,
  PRIMARY KEY (`project_id`,`of`),
  CONSTRAINT `sealed_key_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `sealed_key`
--

LOCK TABLES `sealed_key` WRITE;
/*!40000 ALTER TABLE `sealed_key` DISABLE KEYS */;
/*!40000 ALTER TABLE `sealed_key` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `setting`
--

DROP TABLE IF EXISTS `setting`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `setting` (
  `name` varchar(40) NOT NULL,
  `value` text NOT NULL,
  PRIMARY KEY (`name`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `setting`
--

LOCK TABLES `setting` WRITE;
/*!40000 ALTER TABLE `setting` DISABLE KEYS */;
/*!40000 ALTER TABLE `setting` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `site`
--

DROP TABLE IF EXISTS `site`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `site` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `kind` varchar(40) NOT NULL,
  `domain` varchar(40) NOT NULL,
  `line_mbps` double NOT NULL,
  `upstream_subnet` varchar(43) NOT NULL,
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
  `client_name` varchar(120) NOT NULL,
  `contact` varchar(120) NOT NULL,
  `visited_on` varchar(120) DEFAULT NULL,
  `start_on` varchar(120) DEFAULT NULL,
  `due_on` varchar(120) DEFAULT NULL,
  `budget` double DEFAULT NULL,
  `house_rules` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`house_rules`)),
  `quiet_hour` varchar(120) NOT NULL,
  `opens` varchar(120) NOT NULL,
  `closes` varchar(120) NOT NULL,
  `units` varchar(40) NOT NULL,
  `line_kind` varchar(40) NOT NULL,
  `line_up_mbps` double NOT NULL,
  `line_address` varchar(40) NOT NULL,
  `television` tinyint(1) NOT NULL,
  `upstream_gear` varchar(120) NOT NULL,
  `radar_channels` tinyint(1) NOT NULL,
  `four_channels_24` tinyint(1) NOT NULL,
  `channels_by` varchar(40) NOT NULL,
  `asks_second` tinyint(1) NOT NULL,
  `mount_first` varchar(40) NOT NULL,
  `back_haul` varchar(40) NOT NULL,
  `quiet_day` varchar(40) DEFAULT NULL,
  PRIMARY KEY (`project_id`,`id`),
  CONSTRAINT `site_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `site`
--

LOCK TABLES `site` WRITE;
/*!40000 ALTER TABLE `site` DISABLE KEYS */;
INSERT INTO `site` VALUES
('p-68af6ac7b74f','site',1,'home','americas',80,'192.168.1.0/24','phone','6',1,5,3,3,0.2,80,'EUR',0,3,0,'E. Quern','Installer\'s workshop, weekdays 8 to 17','2026-10-05','2026-11-23','2026-11-27',12500,'[\"listed\", \"no_visible_cable\"]','03:00','00:00','00:00','metric','dsl',20,'pppoe',0,'Bridge box by the lane',1,0,'plan',1,'ceiling','wired',NULL);
/*!40000 ALTER TABLE `site` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `socket`
--

DROP TABLE IF EXISTS `socket`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `socket` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `floor` varchar(40) NOT NULL,
  `name` varchar(120) NOT NULL,
  `at` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`at`)),
  `height_m` double NOT NULL,
  `panel` varchar(40) DEFAULT NULL,
  `circuit` varchar(120) NOT NULL,
  `state` varchar(40) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`floor`),
  KEY `project_id_2` (`project_id`,`panel`),
  CONSTRAINT `socket_ibfk_1` FOREIGN KEY (`project_id`, `floor`) REFERENCES `floor` (`project_id`, `id`),
  CONSTRAINT `socket_ibfk_2` FOREIGN KEY (`project_id`, `panel`) REFERENCES `panel` (`project_id`, `id`),
  CONSTRAINT `socket_ibfk_3` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `socket`
--

LOCK TABLES `socket` WRITE;
/*!40000 ALTER TABLE `socket` DISABLE KEYS */;
INSERT INTO `socket` VALUES
('p-68af6ac7b74f','socket-1',1,'wheel','Plant socket','[1.887, 7.156]',0.6,NULL,'','keep'),
('p-68af6ac7b74f','socket-2',2,'stone','Study socket','[1.597, 5.992]',0.3,NULL,'','keep');
/*!40000 ALTER TABLE `socket` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `space`
--

DROP TABLE IF EXISTS `space`;
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
  `stairs` tinyint(1) NOT NULL,
  `water` tinyint(1) DEFAULT NULL,
  `locks` tinyint(1) DEFAULT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`floor`),
  CONSTRAINT `space_ibfk_1` FOREIGN KEY (`project_id`, `floor`) REFERENCES `floor` (`project_id`, `id`),
  CONSTRAINT `space_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `space`
--

LOCK TABLES `space` WRITE;
/*!40000 ALTER TABLE `space` DISABLE KEYS */;
INSERT INTO `space` VALUES
('p-68af6ac7b74f','bin-bedroom-2',13,'bin','Bedroom 2','everyday','[[0.0, 0.0], [3.881, -0.968], [5.091, 3.884], [1.21, 4.851]]',NULL,2.1,0,0,0,NULL,NULL),
('p-68af6ac7b74f','bin-bedroom-3',14,'bin','Bedroom 3','everyday','[[3.881, -0.968], [7.762, -1.935], [8.972, 2.916], [5.091, 3.884]]',NULL,2.1,0,0,0,NULL,NULL),
('p-68af6ac7b74f','bin-hoist-landing',15,'bin','Hoist landing','calls','[[1.21, 4.851], [8.972, 2.916], [9.94, 6.797], [2.177, 8.733]]',NULL,2.1,0,0,0,NULL,NULL),
('p-68af6ac7b74f','granary-bath',11,'granary','Bath','none','[[8.972, 2.916], [11.398, 2.311], [12.365, 6.192], [9.94, 6.797]]',NULL,NULL,0,0,0,NULL,NULL),
('p-68af6ac7b74f','granary-dressing-room',12,'granary','Dressing room','everyday','[[11.398, 2.311], [14.794, 1.465], [15.761, 5.346], [12.365, 6.192]]',NULL,NULL,0,0,0,NULL,NULL),
('p-68af6ac7b74f','granary-main-bedroom',10,'granary','Main bedroom','everyday','[[7.762, -1.935], [13.584, -3.387], [14.794, 1.465], [8.972, 2.916]]',NULL,NULL,0,0,0,NULL,NULL),
('p-68af6ac7b74f','loft-sleeping-loft',19,'loft','Sleeping loft','everyday','[[150.0, 62.0], [153.654, 63.627], [151.214, 69.108], [147.56, 67.481]]',NULL,NULL,0,0,0,NULL,NULL),
('p-68af6ac7b74f','shed-boat-bay',16,'shed','Boat bay','everyday','[[12.622, -15.514], [18.443, -16.966], [19.895, -11.144], [14.073, -9.693]]',NULL,3,0,0,0,NULL,NULL),
('p-68af6ac7b74f','stone-living-room',7,'stone','Living room','calls','[[0.0, 0.0], [7.762, -1.935], [8.972, 2.916], [1.21, 4.851]]',NULL,NULL,0,0,0,NULL,NULL),
('p-68af6ac7b74f','stone-stairs',9,'stone','Stairs','calls','[[4.606, 4.005], [8.972, 2.916], [9.94, 6.797], [5.573, 7.886]]',NULL,NULL,0,0,1,NULL,NULL),
('p-68af6ac7b74f','stone-study',8,'stone','Study','calls','[[1.21, 4.851], [4.606, 4.005], [5.573, 7.886], [2.177, 8.733]]',NULL,NULL,0,0,0,NULL,NULL),
('p-68af6ac7b74f','studio-kiln-room',18,'studio','Kiln room','sensors','[[156.395, 64.847], [159.135, 66.067], [156.695, 71.549], [153.954, 70.328]]',NULL,NULL,0,0,0,NULL,NULL),
('p-68af6ac7b74f','studio-painting-room',17,'studio','Painting room','calls','[[150.0, 62.0], [156.395, 64.847], [153.954, 70.328], [147.56, 67.481]]',NULL,4.4,0,0,0,NULL,NULL),
('p-68af6ac7b74f','wheel-boot-hall',2,'wheel','Boot hall','everyday','[[4.851, -1.21], [7.762, -1.935], [8.851, 2.431], [5.94, 3.157]]',NULL,NULL,0,0,0,NULL,NULL),
('p-68af6ac7b74f','wheel-great-kitchen',5,'wheel','Great kitchen','calls','[[7.762, -1.935], [13.584, -3.387], [15.761, 5.346], [9.94, 6.797]]',NULL,4,0,0,0,NULL,NULL),
('p-68af6ac7b74f','wheel-lower-stairs',4,'wheel','Lower stairs','calls','[[4.485, 3.52], [8.851, 2.431], [9.94, 6.797], [5.573, 7.886]]',NULL,NULL,0,0,1,NULL,NULL),
('p-68af6ac7b74f','wheel-mill-terrace',6,'wheel','Mill terrace','everyday','[[0.731, -5.335], [12.375, -8.238], [13.584, -3.387], [1.941, -0.484]]',NULL,NULL,0,1,0,NULL,NULL),
('p-68af6ac7b74f','wheel-plant-room',3,'wheel','Plant room','none','[[1.089, 4.366], [4.485, 3.52], [5.573, 7.886], [2.177, 8.733]]',NULL,NULL,0,0,0,NULL,NULL),
('p-68af6ac7b74f','wheel-wheel-room',1,'wheel','Wheel room','sensors','[[0.0, 0.0], [4.851, -1.21], [5.94, 3.157], [1.089, 4.366]]',NULL,NULL,0,0,0,NULL,NULL);
/*!40000 ALTER TABLE `space` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `switch`
--

DROP TABLE IF EXISTS `switch`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `switch` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `equipment_room` varchar(40) NOT NULL,
  `name` varchar(120) NOT NULL,
  `model` varchar(120) NOT NULL,
  `state` varchar(40) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`equipment_room`),
  CONSTRAINT `switch_ibfk_1` FOREIGN KEY (`project_id`, `equipment_room`) REFERENCES `equipment_room` (`project_id`, `id`),
  CONSTRAINT `switch_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `switch`
--

LOCK TABLES `switch` WRITE;
/*!40000 ALTER TABLE `switch` DISABLE KEYS */;
INSERT INTO `switch` VALUES
('p-68af6ac7b74f','sw-1',1,'rack','SW-1','dunthrip-s8','new');
/*!40000 ALTER TABLE `switch` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `underlay`
--

DROP TABLE IF EXISTS `underlay`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `underlay` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `floor` varchar(40) NOT NULL,
  `picture` varchar(120) NOT NULL,
  `name` varchar(120) NOT NULL,
  `width_px` int(11) NOT NULL,
  `height_px` int(11) NOT NULL,
  `metres_per_px` double NOT NULL,
  `at` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`at`)),
  `turn_deg` double NOT NULL,
  `crop` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`crop`)),
  `strength` double NOT NULL,
  `hidden` tinyint(1) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`floor`),
  CONSTRAINT `underlay_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE,
  CONSTRAINT `underlay_ibfk_2` FOREIGN KEY (`project_id`, `floor`) REFERENCES `floor` (`project_id`, `id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `underlay`
--

LOCK TABLES `underlay` WRITE;
/*!40000 ALTER TABLE `underlay` DISABLE KEYS */;
/*!40000 ALTER TABLE `underlay` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `uplink`
--

DROP TABLE IF EXISTS `uplink`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `uplink` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `room` varchar(40) NOT NULL,
  `to` varchar(40) NOT NULL,
  `medium` varchar(40) DEFAULT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`room`),
  KEY `project_id_2` (`project_id`,`to`),
  CONSTRAINT `uplink_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE,
  CONSTRAINT `uplink_ibfk_2` FOREIGN KEY (`project_id`, `room`) REFERENCES `equipment_room` (`project_id`, `id`),
  CONSTRAINT `uplink_ibfk_3` FOREIGN KEY (`project_id`, `to`) REFERENCES `equipment_room` (`project_id`, `id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `uplink`
--

LOCK TABLES `uplink` WRITE;
/*!40000 ALTER TABLE `uplink` DISABLE KEYS */;
/*!40000 ALTER TABLE `uplink` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `variant`
--

DROP TABLE IF EXISTS `variant`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `variant` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `name` varchar(120) NOT NULL,
  `changes` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`changes`)),
  PRIMARY KEY (`project_id`,`id`),
  CONSTRAINT `variant_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `variant`
--

LOCK TABLES `variant` WRITE;
/*!40000 ALTER TABLE `variant` DISABLE KEYS */;
/*!40000 ALTER TABLE `variant` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `voucher_set`
--

DROP TABLE IF EXISTS `voucher_set`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `voucher_set` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `portal` varchar(40) NOT NULL,
  `name` varchar(120) NOT NULL,
  `number` int(11) NOT NULL,
  `rooms` tinyint(1) NOT NULL,
  `hours` int(11) NOT NULL,
  `devices` int(11) NOT NULL,
  `limit_mbps` double DEFAULT NULL,
  `price` varchar(120) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`portal`),
  CONSTRAINT `voucher_set_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE,
  CONSTRAINT `voucher_set_ibfk_2` FOREIGN KEY (`project_id`, `portal`) REFERENCES `portal` (`project_id`, `id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `voucher_set`
--

LOCK TABLES `voucher_set` WRITE;
/*!40000 ALTER TABLE `voucher_set` DISABLE KEYS */;
/*!40000 ALTER TABLE `voucher_set` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `wall`
--

DROP TABLE IF EXISTS `wall`;
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
  `rated` tinyint(1) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`floor`),
  CONSTRAINT `wall_ibfk_1` FOREIGN KEY (`project_id`, `floor`) REFERENCES `floor` (`project_id`, `id`),
  CONSTRAINT `wall_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `wall`
--

LOCK TABLES `wall` WRITE;
/*!40000 ALTER TABLE `wall` DISABLE KEYS */;
INSERT INTO `wall` VALUES
('p-68af6ac7b74f','w1',1,'wheel','[0.0, 0.0]','[1.089, 4.366]','metal',0),
('p-68af6ac7b74f','w10',10,'wheel','[5.94, 3.157]','[8.851, 2.431]','plasterboard',0),
('p-68af6ac7b74f','w11',11,'wheel','[2.177, 8.733]','[15.761, 5.346]','stone',0),
('p-68af6ac7b74f','w12',12,'stone','[0.0, 0.0]','[2.177, 8.733]','stone',0),
('p-68af6ac7b74f','w13',13,'stone','[4.606, 4.005]','[5.573, 7.886]','plasterboard',0),
('p-68af6ac7b74f','w14',14,'stone','[7.762, -1.935]','[9.94, 6.797]','stone',0),
('p-68af6ac7b74f','w15',15,'stone','[0.0, 0.0]','[7.762, -1.935]','stone',0),
('p-68af6ac7b74f','w16',16,'stone','[1.21, 4.851]','[8.972, 2.916]','plasterboard',0),
('p-68af6ac7b74f','w17',17,'stone','[2.177, 8.733]','[9.94, 6.797]','stone',0),
('p-68af6ac7b74f','w18',18,'granary','[7.762, -1.935]','[9.94, 6.797]','stone',0),
('p-68af6ac7b74f','w19',19,'granary','[11.398, 2.311]','[12.365, 6.192]','wet-wall',0),
('p-68af6ac7b74f','w2',2,'wheel','[1.089, 4.366]','[2.177, 8.733]','stone',0),
('p-68af6ac7b74f','w20',20,'granary','[13.584, -3.387]','[15.761, 5.346]','stone',0),
('p-68af6ac7b74f','w21',21,'granary','[7.762, -1.935]','[13.584, -3.387]','stone',0),
('p-68af6ac7b74f','w22',22,'granary','[8.972, 2.916]','[11.398, 2.311]','wet-wall',0),
('p-68af6ac7b74f','w23',23,'granary','[11.398, 2.311]','[14.794, 1.465]','plasterboard',0),
('p-68af6ac7b74f','w24',24,'granary','[9.94, 6.797]','[15.761, 5.346]','stone',0),
('p-68af6ac7b74f','w25',25,'bin','[0.0, 0.0]','[2.177, 8.733]','stone',0),
('p-68af6ac7b74f','w26',26,'bin','[3.881, -0.968]','[5.091, 3.884]','plasterboard',0),
('p-68af6ac7b74f','w27',27,'bin','[7.762, -1.935]','[9.94, 6.797]','stone',0),
('p-68af6ac7b74f','w28',28,'bin','[0.0, 0.0]','[7.762, -1.935]','stone',0),
('p-68af6ac7b74f','w29',29,'bin','[1.21, 4.851]','[8.972, 2.916]','plasterboard',0),
('p-68af6ac7b74f','w3',3,'wheel','[4.485, 3.52]','[5.573, 7.886]','block-dense',0),
('p-68af6ac7b74f','w30',30,'bin','[2.177, 8.733]','[9.94, 6.797]','stone',0),
('p-68af6ac7b74f','w31',31,'shed','[12.622, -15.514]','[14.073, -9.693]','timber-clad',0),
('p-68af6ac7b74f','w32',32,'shed','[18.443, -16.966]','[19.895, -11.144]','timber-clad',0),
('p-68af6ac7b74f','w33',33,'shed','[12.622, -15.514]','[18.443, -16.966]','timber-clad',0),
('p-68af6ac7b74f','w34',34,'shed','[14.073, -9.693]','[19.895, -11.144]','timber-clad',0),
('p-68af6ac7b74f','w35',35,'studio','[150.0, 62.0]','[147.56, 67.481]','timber-clad',0),
('p-68af6ac7b74f','w36',36,'studio','[156.395, 64.847]','[153.954, 70.328]','block-dense',0),
('p-68af6ac7b74f','w37',37,'studio','[159.135, 66.067]','[156.695, 71.549]','timber-clad',0),
('p-68af6ac7b74f','w38',38,'studio','[150.0, 62.0]','[159.135, 66.067]','timber-clad',0),
('p-68af6ac7b74f','w39',39,'studio','[147.56, 67.481]','[156.695, 71.549]','timber-clad',0),
('p-68af6ac7b74f','w4',4,'wheel','[4.851, -1.21]','[5.94, 3.157]','metal',0),
('p-68af6ac7b74f','w40',40,'loft','[150.0, 62.0]','[147.56, 67.481]','timber-clad',0),
('p-68af6ac7b74f','w41',41,'loft','[153.654, 63.627]','[151.214, 69.108]','timber-clad',0),
('p-68af6ac7b74f','w42',42,'loft','[150.0, 62.0]','[153.654, 63.627]','timber-clad',0),
('p-68af6ac7b74f','w43',43,'loft','[147.56, 67.481]','[151.214, 69.108]','timber-clad',0),
('p-68af6ac7b74f','w5',5,'wheel','[7.762, -1.935]','[9.94, 6.797]','plasterboard',0),
('p-68af6ac7b74f','w6',6,'wheel','[13.584, -3.387]','[15.761, 5.346]','stone',0),
('p-68af6ac7b74f','w7',7,'wheel','[0.0, 0.0]','[4.851, -1.21]','metal',0),
('p-68af6ac7b74f','w8',8,'wheel','[4.851, -1.21]','[13.584, -3.387]','stone',0),
('p-68af6ac7b74f','w9',9,'wheel','[1.089, 4.366]','[5.94, 3.157]','metal',0);
/*!40000 ALTER TABLE `wall` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `way_pin`
--

DROP TABLE IF EXISTS `way_pin`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `way_pin` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `switch` varchar(40) NOT NULL,
  `port` int(11) NOT NULL,
  `to` varchar(40) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`switch`),
  KEY `project_id_2` (`project_id`,`to`),
  CONSTRAINT `way_pin_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE,
  CONSTRAINT `way_pin_ibfk_2` FOREIGN KEY (`project_id`, `switch`) REFERENCES `switch` (`project_id`, `id`),
  CONSTRAINT `way_pin_ibfk_3` FOREIGN KEY (`project_id`, `to`) REFERENCES `switch` (`project_id`, `id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `way_pin`
--

LOCK TABLES `way_pin` WRITE;
/*!40000 ALTER TABLE `way_pin` DISABLE KEYS */;
/*!40000 ALTER TABLE `way_pin` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `way_point`
--

DROP TABLE IF EXISTS `way_point`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `way_point` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `device` varchar(40) NOT NULL,
  `floor` varchar(40) NOT NULL,
  `at` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`at`)),
  `rank` double NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`device`),
  KEY `project_id_2` (`project_id`,`floor`),
  CONSTRAINT `way_point_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE,
  CONSTRAINT `way_point_ibfk_2` FOREIGN KEY (`project_id`, `device`) REFERENCES `device` (`project_id`, `id`),
  CONSTRAINT `way_point_ibfk_3` FOREIGN KEY (`project_id`, `floor`) REFERENCES `floor` (`project_id`, `id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `way_point`
--

LOCK TABLES `way_point` WRITE;
/*!40000 ALTER TABLE `way_point` DISABLE KEYS */;
/*!40000 ALTER TABLE `way_point` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `wireless_name`
--

DROP TABLE IF EXISTS `wireless_name`;
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
  `fast_transition` tinyint(1) DEFAULT NULL,
  `access_points` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`access_points`)),
  `steering` tinyint(1) DEFAULT NULL,
  `dtim` int(11) DEFAULT NULL,
  `lowest_rate_mbps` int(11) DEFAULT NULL,
  `limit_mbps` double DEFAULT NULL,
  `from_hour` varchar(120) DEFAULT NULL,
  `to_hour` varchar(120) DEFAULT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`network`),
  CONSTRAINT `wireless_name_ibfk_1` FOREIGN KEY (`project_id`, `network`) REFERENCES `network` (`project_id`, `id`),
  CONSTRAINT `wireless_name_ibfk_2` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `wireless_name`
--

LOCK TABLES `wireless_name` WRITE;
/*!40000 ALTER TABLE `wireless_name` DISABLE KEYS */;
INSERT INTO `wireless_name` VALUES
('p-68af6ac7b74f','ssid-guest',2,'net-guest','Quernbeck guests','[\"2.4\", \"5\"]','wpa3_wpa2',1,NULL,'[]',NULL,NULL,NULL,NULL,NULL,NULL),
('p-68af6ac7b74f','ssid-main',1,'net-main','Quernbeck','[\"2.4\", \"5\"]','wpa3_wpa2',0,NULL,'[]',NULL,NULL,NULL,NULL,NULL,NULL),
('p-68af6ac7b74f','ssid-things',3,'net-devices','Quernbeck things','[\"2.4\"]','wpa3_wpa2',0,1,'[]',NULL,NULL,NULL,NULL,NULL,NULL);
/*!40000 ALTER TABLE `wireless_name` ENABLE KEYS */;
UNLOCK TABLES;

--
-- Table structure for table `zone`
--

DROP TABLE IF EXISTS `zone`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `zone` (
  `project_id` varchar(40) NOT NULL,
  `id` varchar(40) NOT NULL,
  `placed` int(11) NOT NULL,
  `floor` varchar(40) NOT NULL,
  `kind` varchar(40) NOT NULL,
  `name` varchar(120) NOT NULL,
  `outline` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL CHECK (json_valid(`outline`)),
  `access_points` int(11) NOT NULL,
  `outlets` int(11) NOT NULL,
  `cameras` int(11) NOT NULL,
  PRIMARY KEY (`project_id`,`id`),
  KEY `project_id` (`project_id`,`floor`),
  CONSTRAINT `zone_ibfk_1` FOREIGN KEY (`project_id`) REFERENCES `project` (`id`) ON DELETE CASCADE,
  CONSTRAINT `zone_ibfk_2` FOREIGN KEY (`project_id`, `floor`) REFERENCES `floor` (`project_id`, `id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

--
-- Dumping data for table `zone`
--

LOCK TABLES `zone` WRITE;
/*!40000 ALTER TABLE `zone` DISABLE KEYS */;
INSERT INTO `zone` VALUES
('p-68af6ac7b74f','zone-1',1,'granary','later','Guest rooms in the attic\'s end','[[7.762, -1.935], [13.584, -3.387], [14.794, 1.465], [8.972, 2.916]]',1,4,0),
('p-68af6ac7b74f','zone-2',2,'stone','no_drilling','Listed fireplace wall','[[0.0, 0.0], [0.776, -0.194], [1.986, 4.658], [1.21, 4.851]]',0,0,0);
/*!40000 ALTER TABLE `zone` ENABLE KEYS */;
UNLOCK TABLES;
/*!40103 SET TIME_ZONE=@OLD_TIME_ZONE */;

/*!40101 SET SQL_MODE=@OLD_SQL_MODE */;
/*!40014 SET FOREIGN_KEY_CHECKS=@OLD_FOREIGN_KEY_CHECKS */;
/*!40014 SET UNIQUE_CHECKS=@OLD_UNIQUE_CHECKS */;
/*!40101 SET CHARACTER_SET_CLIENT=@OLD_CHARACTER_SET_CLIENT */;
/*!40101 SET CHARACTER_SET_RESULTS=@OLD_CHARACTER_SET_RESULTS */;
/*!40101 SET COLLATION_CONNECTION=@OLD_COLLATION_CONNECTION */;
/*!40111 SET SQL_NOTES=@OLD_SQL_NOTES */;

-- Dump completed
