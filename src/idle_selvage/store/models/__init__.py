"""The tables, one a file."""

from .aside import Aside
from .bar import BarRow
from .bar_wish import BarWishRow
from .base import Base, UtcTime, now
from .buy_sheet import BuySheet
from .change import Change, ChangedRow
from .cloth import Cloth
from .cloth_use import ClothUse
from .cut import Cut
from .cutting import BeforeLine, CutDeed, Cutting
from .flaw import Flaw
from .item import ListItem, ListTick
from .job import Job
from .lay import LayChange, LayRecord
from .lay_problem import LayProblem
from .load_cloth import LoadCloth
from .load_task import LoadTask
from .log_entry import LogEntry
from .log_photo import LogPhoto
from .offer import Offer
from .outcome import OutcomeRow
from .paired_device import PairedDevice
from .photo import Photo
from .piece import Piece
from .project import Project
from .reading import By, Reading
from .seam import SeamRow
from .settings import Settings
from .shared_purchase import SharedPurchase
from .swatch import Swatch
from .trial import Trial
from .trim_run import TrimRun
from .true_sheet import TrueSheet
from .true_test import TrueTest
from .wash import Wash
from .wash_load import WashLoad

__all__ = [
    "Aside",
    "BarRow",
    "BarWishRow",
    "Base",
    "BeforeLine",
    "BuySheet",
    "By",
    "Change",
    "ChangedRow",
    "Cloth",
    "ClothUse",
    "Cut",
    "CutDeed",
    "Cutting",
    "Flaw",
    "Job",
    "LayChange",
    "LayProblem",
    "LayRecord",
    "ListItem",
    "ListTick",
    "LoadCloth",
    "LoadTask",
    "LogEntry",
    "LogPhoto",
    "Offer",
    "OutcomeRow",
    "PairedDevice",
    "Photo",
    "Piece",
    "Project",
    "Reading",
    "SeamRow",
    "Settings",
    "SharedPurchase",
    "Swatch",
    "Trial",
    "TrimRun",
    "TrueSheet",
    "TrueTest",
    "UtcTime",
    "Wash",
    "WashLoad",
    "now",
]
