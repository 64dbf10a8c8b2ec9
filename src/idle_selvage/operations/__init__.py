"""What a person does and asks: a session in, frozen dataclasses out.

No HTTP, no SQL, no units: what is said is a :class:`~idle_selvage.core.wording.Sentence` whose quantities are written
by whoever shows it. Arguments come in the same order everywhere: session, garment, cloth, then what is given.
"""
