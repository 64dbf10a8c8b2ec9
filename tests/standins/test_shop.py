"""The stand-in shop."""

from __future__ import annotations

from idle_selvage.core.cloth.make import FIBRES, Make
from idle_selvage.standins.shop import PriceList, StandInShop


def test_the_same_seed_gives_the_same_list_and_another_another() -> None:
    shop: PriceList = StandInShop()
    assert shop.like(Make()) == StandInShop().like(Make()) != StandInShop(seed=2).like(Make())
    assert "made up" in shop.name


def test_like_cloth_first_and_everything_when_nothing_is_known() -> None:
    shop = StandInShop()
    linen = shop.like(Make((("cotton", 40.0), ("linen", 60.0))))
    assert linen and {q.make.blend[0][0] for q in linen} == {"linen"}
    assert [q.width for q in linen] == sorted((q.width for q in linen), reverse=True)
    everything = shop.like(Make())
    assert {q.make.blend[0][0] for q in everything} == set(FIBRES)
    assert len({q.number for q in everything}) == len(everything)
    assert all(q.price > 0 and q.least >= q.step > 0 and 800 < q.width < 1600 for q in everything)
