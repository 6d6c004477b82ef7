//! Segments cut where they meet, with the winding numbers beside every piece: what combining, offsets and outlines stand
//! on.
//!
//! All sides are cut where they meet, next to every piece it is found out how often each shape winds round there, and
//! the pieces between what is kept and what is not are the new rim. Curves stay curves: a piece of an arc is an arc.
//!
//! - `sources` cleans the segments that come in;
//! - `edges` cuts them where they meet;
//! - `sides` finds the winding numbers beside each piece;
//! - `trace` goes round the rim;
//! - `rims` does all of it, again where rounding has mixed something up;
//! - `painted` measures what is painted by its rim.

mod edges;
mod painted;
mod rims;
mod sides;
mod sources;
mod trace;

pub(crate) use edges::{Arrangement, Edge, MAX_INTERSECTIONS, crossing_at};
pub(crate) use painted::{Filling, all_closed};
pub(crate) use rims::{arranged, arranged_within, combined, scaled_to_numbers, too_many, without_slivers};
pub(crate) use sides::{lefts, right_of};
pub(crate) use sources::{Part, sources};
pub(crate) use trace::{DirectedEdge, contours};
