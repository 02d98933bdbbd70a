"""What the disc-class matrix says, in a sentence (traps T7 and T13)."""

from __future__ import annotations

from collections.abc import Collection, Mapping

from spindle.drives.sheet import CLASS_WAVELENGTH_NM, DriveSheet


def matrix_summary(outcomes: Mapping[str, str], sheet: DriveSheet) -> str:
    """Return what the classes tried so far say together.

    Parameters
    ----------
    outcomes : mapping of disc class to "reads", "slow", "fails" or "cant_tell"
        Classes that the drive does not support are ignored: they are no evidence.
    """
    by_nm: dict[int, set[str]] = {}
    for name, outcome in outcomes.items():
        if name in sheet.classes and outcome != "cant_tell":
            by_nm.setdefault(CLASS_WAVELENGTH_NM[name], set()).add(outcome)
    if not by_nm:
        return "No class tried yet. One disc of each light is enough to begin with."
    failing = sorted(nm for nm, seen in by_nm.items() if "reads" not in seen)
    reading = sorted(nm for nm, seen in by_nm.items() if seen == {"reads"})
    untried = sorted(sheet.wavelengths_nm - by_nm.keys())
    more = f" Not tried yet: {', '.join(f'{nm} nm' for nm in untried)}." if untried else ""
    if failing and reading:
        bad, good = (", ".join(f"{nm} nm" for nm in x) for x in (failing, reading))
        return f"{bad} fails, {good} reads as usual. That speaks for one diode, against dirt, mechanics and supply.{more}"
    if failing:
        return f"Every light tried fails. That points away from a single diode: at what they share.{more}"
    return f"Every light tried reads.{more}"


def classes_to_try(answered: Collection[str], sheet: DriveSheet) -> tuple[str, ...]:
    """Return the first supported class of each wavelength of which none has been tried, shortest light first."""
    tried = {CLASS_WAVELENGTH_NM[c] for c in answered if c in CLASS_WAVELENGTH_NM}
    left: dict[int, str] = {}
    for name, nm in CLASS_WAVELENGTH_NM.items():
        if name in sheet.classes and nm not in tried:
            left.setdefault(nm, name)
    return tuple(left.values())
