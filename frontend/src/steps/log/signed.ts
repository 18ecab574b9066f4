import { plain } from "../../units/units";

/** Strokes a shot or round with their sign, none where it rounds to nothing. */
export const signed = (value: number) => `${value > 0.004 ? "+" : ""}${plain(value, 2)}`;
