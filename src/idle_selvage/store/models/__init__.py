"""The tables, one a file."""

from .base import Base, UtcTime, now
from .buy_sheet import BuySheet
from .cloth import Cloth
from .job import Job
from .lay import LayRecord
from .load_task import LoadTask
from .log_entry import LogEntry
from .offer import Offer
from .photo import Photo
from .piece import Piece
from .project import Project
from .set_cloth import SetCloth
from .settings import Settings
from .swatch import Swatch
from .trial import Trial
from .true_sheet import TrueSheet
from .true_test import TrueTest
from .wash import Wash
from .wash_load import WashLoad

__all__ = [
    "Base",
    "BuySheet",
    "Cloth",
    "Job",
    "LayRecord",
    "LoadTask",
    "LogEntry",
    "Offer",
    "Photo",
    "Piece",
    "Project",
    "SetCloth",
    "Settings",
    "Swatch",
    "Trial",
    "TrueSheet",
    "TrueTest",
    "UtcTime",
    "Wash",
    "WashLoad",
    "now",
]
