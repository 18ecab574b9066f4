"""Head speeds that take a ball to a hole: compiled halving on the flight's tables."""

from oblatus.core._compiled import kernel
from oblatus.core.flight._tables import look, place
from oblatus.core.strike import _kernels as strike_kernels
from oblatus.core.strike._quality import clean_strike

_jit = kernel()


@_jit
def clean_speeds(lofts, attacks, mass, totals, carries, runs, out):
    """Head speed [m/s] of a clean strike that comes to rest at each total [m]."""
    for i in range(lofts.shape[0]):
        low, high = 2.0, 60.0
        for _ in range(12):
            speed = 0.5 * (low + high)
            bx, bz, vt = clean_strike(lofts[i], attacks[i], 1.0, mass, strike_kernels.USUAL_GRIP, speed)
            a, b, c, u, v, w, ball = place(bx, bz, vt)
            if look(carries, a, b, c, u, v, w) * ball * ball + look(runs, a, b, c, u, v, w) < totals[i]:
                low = speed
            else:
                high = speed
        out[i] = 0.5 * (low + high)
