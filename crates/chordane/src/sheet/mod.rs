//! The sheet: what is drawn, with which style, in which order.
//!
//! Style is a value on each item. There is no current style, so nothing leaks from one shape into the next.

mod colour;
mod colour_names;
mod contact;
mod copies;
mod group;
mod item;
mod named;
mod page;
mod stamps;
mod style;
mod woven;

pub use colour::{Colour, Paint};
pub use contact::{ContactAxes, contact_sheet};
pub use copies::{copies_at, ring_of};
pub use group::{Group, Node, group};
pub use item::Item;
pub use named::{Given, Named};
pub use page::{Sheet, Unit, sheet};
pub use style::{Style, style};
pub use woven::woven;
