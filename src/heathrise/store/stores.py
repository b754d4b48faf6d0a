"""All stores over one database, made once."""

from __future__ import annotations

from dataclasses import dataclass

from .firm import FirmHeads
from .jobs import Jobs
from .keys import Keys
from .measured import Measured
from .papers import Papers
from .pictures import Pictures
from .plans import Plans
from .practices import FirmPractices
from .prices import FirmPrices
from .records import Records
from .repository import Repository
from .revisions import Revisions
from .vault import Vault


@dataclass(frozen=True)
class Stores:
    """What is kept, each kind by its own store."""

    repository: Repository
    plans: Plans
    prices: FirmPrices
    records: Records
    measured: Measured
    papers: Papers
    pictures: Pictures
    heads: FirmHeads
    practices: FirmPractices
    jobs: Jobs
    keys: Keys
    revisions: Revisions

    @classmethod
    def over(cls, repository: Repository, vault: Vault | None = None) -> Stores:
        """Return the stores of the database that a repository is over; keys are sealed in a vault."""
        engine = repository.engine
        prices, records = FirmPrices(engine), Records(engine)
        return cls(
            repository,
            Plans(repository, prices),
            prices,
            records,
            Measured(records),
            Papers(engine),
            Pictures(engine),
            FirmHeads(engine),
            FirmPractices(engine, repository.shipped.matters),
            Jobs(engine),
            Keys(engine, vault or Vault()),
            Revisions(repository),
        )
