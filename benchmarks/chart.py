"""The chart of the lay bench as SVG: each garment's length beside the reference, and each kind of jigsaw."""

from __future__ import annotations

from typing import Any

WIDTH, LEFT, ROW = 760, 170, 26


def chart(measured: dict[str, Any]) -> str:
    """One line per kind: a dot per seed, a bar for the mean. Dotted lines stand at the targets."""
    lines: list[str] = []
    y = 40

    def text(x: float, at: float, words: str, anchor: str = "start", size: int = 13) -> None:
        style = f'font-family="sans-serif" font-size="{size}" text-anchor="{anchor}"'
        lines.append(f'<text x="{x:.1f}" y="{at:.1f}" {style}>{words}</text>')

    def panel(title: str, groups: dict[str, list[float]], low: float, high: float, target: float) -> None:
        nonlocal y
        text(10, y, title, size=15)
        y += 14
        top = y

        def place(value: float) -> float:
            return LEFT + (min(max(value, low), high) - low) / (high - low) * (WIDTH - LEFT - 60)

        for name, values in groups.items():
            mean = sum(values) / len(values)
            text(LEFT - 10, y + 17, name, "end")
            lines.append(f'<rect x="{LEFT}" y="{y + 5}" width="{place(mean) - LEFT:.1f}" height="14" fill="#b9cbd6"/>')
            for value in values:
                lines.append(f'<circle cx="{place(value):.1f}" cy="{y + 12}" r="3.2" fill="#23465c"/>')
            text(WIDTH - 10, y + 17, f"{mean:.3f}", "end")
            y += ROW
        at = place(target)
        lines.append(f'<path d="M{at:.1f} {top}V{y}" stroke="#a2432b" stroke-dasharray="4 4" fill="none"/>')
        text(at, y + 14, f"{target:g}", "middle", 11)
        y += 44

    panel(
        "Length against the reference, equal seconds and processes (less is better)",
        measured["garments"]["ratios"],
        0.9,
        1.05,
        0.98,
    )
    panel("Jigsaws that tile: share of the known length", measured["jigsaws"]["whole"], 0.6, 1.05, 0.99)
    panel(
        "Jigsaws with a kerf and a piece left out: share of the known length",
        measured["jigsaws"]["kerf"],
        0.6,
        1.05,
        0.9,
    )
    body = "\n".join(lines)
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{WIDTH}" height="{y}" viewBox="0 0 {WIDTH} {y}">\n'
        f'<rect width="100%" height="100%" fill="#fff"/>\n{body}\n</svg>\n'
    )
