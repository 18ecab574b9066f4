"""How kernels are compiled and where they are kept: no other file asks numba.

`quick` reorders sums and takes reciprocals for divisions; infinities and not-a-numbers keep their meaning. `leaf` is
`quick` for functions that allocate nothing: references to their arrays are not counted, because two threads that count
references to the same arrays wait for each other at every strike. `inline` is a leaf that is copied into its caller.

`SLP_VECTORIZE` has the compiler take together what is written out four times over neighbours in memory (strokes at four
pins): numba leaves that off.

Arrays are filled element by element: `out[:] = values` brings numba's words for shapes that differ with it, which take
four seconds to compile each time.
"""

import hashlib
from functools import partial
from pathlib import Path
from typing import Any

import numba

CORE = Path(__file__).parent
TAKEN_FROM = ("constants.py", "parameters.py", "situations.py")
"""Files whose figures stand in kernels, beside those of the kernels themselves, whose names begin with one underscore."""


def sources_name(core: Path) -> str:
    """A name that changes with whatever is compiled.

    numba looks at the date of a kernel's own file alone: one that calls another file's kernel, or has a constant of
    another file, would go on with that one as it was.
    """
    found = (path for name in ("_[!_]*.py", *TAKEN_FROM) for path in core.rglob(name))
    digest = hashlib.blake2b(digest_size=8)
    for path in sorted(found):
        digest.update(path.read_bytes())
    return digest.hexdigest()


KEPT = Path(numba.config.CACHE_DIR or CORE / "__pycache__") / f"kernels-{sources_name(CORE)}"  # type: ignore[attr-defined]
"""The folder of the compiled kernels."""
numba.config.CACHE_DIR = str(KEPT)  # type: ignore[attr-defined]  # made when numba reads the environment
numba.config.SLP_VECTORIZE = 1  # type: ignore[attr-defined]
_QUICK = {"contract", "arcp", "nsz", "reassoc", "afn"}
_UNCOUNTED: dict[str, Any] = {"_nrt": False}

kernel = partial(numba.njit, cache=True, nogil=True)
quick = kernel(error_model="numpy", fastmath=_QUICK)
leaf = kernel(error_model="numpy", fastmath=_QUICK, **_UNCOUNTED)
inline = kernel(error_model="numpy", fastmath=_QUICK, forceinline=True, **_UNCOUNTED)
