"""How kernels are compiled: the flags in one place.

`quick` reorders sums and takes reciprocals for divisions; infinities and not-a-numbers keep their meaning. `leaf` is
`quick` for functions that allocate nothing: references to their arrays are not counted, because two threads that count
references to the same arrays wait for each other at every strike. `inline` is a leaf that is copied into its caller.

`SLP_VECTORIZE` has the compiler take together what is written out four times over neighbours in memory (strokes at four
pins): numba leaves that off.

Arrays are filled element by element: `out[:] = values` brings numba's words for shapes that differ with it, which take
four seconds to compile each time.
"""

from typing import Any

import numba

numba.config.SLP_VECTORIZE = 1  # type: ignore[attr-defined]  # made when numba reads the environment
_QUICK = {"contract", "arcp", "nsz", "reassoc", "afn"}
_UNCOUNTED: dict[str, Any] = {"_nrt": False}

quick = numba.njit(cache=True, nogil=True, error_model="numpy", fastmath=_QUICK)
leaf = numba.njit(cache=True, nogil=True, error_model="numpy", fastmath=_QUICK, **_UNCOUNTED)
inline = numba.njit(cache=True, nogil=True, error_model="numpy", fastmath=_QUICK, forceinline=True, **_UNCOUNTED)
