"""Cut the fonts for paper out of the variable ones that the screen uses: PDF takes one weight and width a file.

The player's page and what a browser prints take those of the first subset too.

Run after the font package changes: .venv/bin/python tools/print_fonts.py
"""

from pathlib import Path

from fontTools.subset import Options, Subsetter
from fontTools.ttLib import TTFont
from fontTools.varLib.instancer import instantiateVariableFont

PROJECT = Path(__file__).resolve().parent.parent
FILES = PROJECT / "frontend" / "node_modules" / "@fontsource-variable" / "archivo" / "files"
COMBINING = range(0x300, 0x370)
CUTS = {"regular": {"wght": 400.0, "wdth": 100.0}, "bold": {"wght": 640.0, "wdth": 94.0}}


def main() -> None:
    """Write regular and bold of both subsets."""
    to = PROJECT / "src" / "oblatus" / "formats" / "print" / "fonts"
    for subset in ("latin", "latin-ext"):
        for name, axes in CUTS.items():
            font = TTFont(FILES / f"archivo-{subset}-wdth-normal.woff2", recalcTimestamp=False)
            cut = instantiateVariableFont(font, axes)
            keep = Subsetter(
                Options(layout_features=["kern", "tnum", "mark", "ccmp"], hinting=False, notdef_outline=True)
            )
            keep.populate(unicodes=cut.getBestCmap())
            keep.subset(cut)
            cut.flavor = None  # as a page needs it: unpacking took half the time of a build sheet
            cut.save(to / f"archivo-{subset}-{name}.ttf")
            if subset == "latin":
                light = Subsetter(
                    Options(
                        layout_features=["kern", "tnum"], hinting=False, notdef_outline=True, name_IDs=[0, 1, 2, 4, 6],
                        drop_tables=[*Options().drop_tables, "STAT", "gasp"],
                    )
                )  # fmt: skip
                # a letter and its accent stand as one; those that are told apart have the system's font on the phone
                light.populate(unicodes=[code for code in cut.getBestCmap() if code not in COMBINING])
                light.subset(cut)
                cut.flavor = "woff2"
                cut.save(to / f"archivo-{subset}-{name}.woff2")


if __name__ == "__main__":
    main()
