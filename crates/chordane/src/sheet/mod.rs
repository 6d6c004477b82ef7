//! The sheet: what is drawn, with which style, in which order.
//!
//! Style is a value on each item. There is no current style, so nothing leaks from one shape into the next.

mod colour;
#[cfg(feature = "serde")]
mod colour_form;
mod colour_names;
mod colour_space;
mod compositing;
mod copies;
mod gradient;
mod group;
mod item;
mod options;
mod page;
mod paint;
mod paper;
mod pattern;
mod picture;
mod placement;
mod shades;
mod style;

pub use colour::Colour;
pub use colour_space::{ColourSpace, hsl, hwb, lab, lch, mix, mix_in, oklab, oklch, palette, rgb};
pub use compositing::{BlendMode, Compositing, Effect, Mask, MaskKind};
pub use copies::{copies_at, ring_of};
pub use gradient::{Frame, Gradient, GradientKind, Spread, linear_gradient, radial_gradient, sweep_gradient};
use group::MAX_DEPTH;
pub use group::{Group, Node, group};
pub use item::Item;
pub use options::{MAX_SIDE, WriteOptions};
#[cfg(feature = "svg-read")]
pub(crate) use page::DocumentView;
pub use page::{Sheet, Unit, sheet};
pub use paint::{GivenColour, GivenPaint, Paint};
pub use paper::paper;
pub use pattern::{Pattern, pattern};
#[cfg(feature = "png")]
pub(crate) use picture::Original;
pub(crate) use picture::PictureLevel;
pub use picture::{Picture, Sampling};
pub use placement::{Layered, Placement};
pub use shades::{Shades, along, by_vertex};
pub use style::{Style, Styled, style};
