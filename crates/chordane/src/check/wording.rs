//! Numbers and places as messages say them.

use crate::number::Point;

/// A point in a message.
pub(super) fn place(p: Point) -> String {
    format!("{}, {}", short(p.x), short(p.y))
}

/// A number in a message: three digits, or a few more.
pub(super) fn short(value: f64) -> String {
    crate::ground::short(value, 3)
}
