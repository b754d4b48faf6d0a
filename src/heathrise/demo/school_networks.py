"""The music school's networks, its names on the air, and how visitors come on."""

from __future__ import annotations

from ..core.design import Network, Portal, VoucherSet, WirelessName
from ..core.settings import usual_terms
from .drafting import Drawing


def add_networks(drawing: Drawing) -> None:
    def network(key: str, name: str, purpose: str, vlan: int, clients: int, guest: bool) -> Network:
        return Network.model_validate(
            {
                "id": key,
                "name": name,
                "purpose": purpose,
                "vlan": vlan,
                "subnet": f"192.168.{vlan}.0/24",
                "expected_clients": clients,
                "client_isolation": guest,
            }
        )

    drawing.add(
        network("net-main", "Staff", "main", 10, 40, False),
        network("net-pupils", "Pupils", "pupils", 15, 90, False),
        network("net-guest", "Visitors", "guest", 20, 60, True),
        network("net-cameras", "Cameras", "cameras", 40, 10, False),
        network("net-management", "Management", "management", 99, 20, False),
        WirelessName(id="ssid-staff", network="net-main", ssid="Larkmere Staff"),
        WirelessName(id="ssid-pupils", network="net-pupils", ssid="Larkmere Pupils"),
        WirelessName(
            id="ssid-guest",
            network="net-guest",
            ssid="Larkmere Visitors",
            client_isolation=True,
            fast_transition=False,
            security="open_portal",
            limit_mbps=20,
        ),
        # Concerts bring visitors for an evening; what local law asks was left for the client to find out.
        Portal(
            id="portal-visitors",
            network="net-guest",
            way="voucher",
            session_h=12,
            terms=usual_terms("Larkmere Music School", None),
        ),
        VoucherSet(
            id="vouchers-concert",
            portal="portal-visitors",
            name="Concert evening",
            number=40,
            hours=6,
            devices=1,
            limit_mbps=8,
        ),
        VoucherSet(
            id="vouchers-teachers",
            portal="portal-visitors",
            name="Guest teachers",
            number=6,
            hours=168,
            devices=2,
        ),
    )
