//! Pictures of drawings: their bones, and many of them on a contact sheet.

mod bones;
mod contact;

pub use bones::{BoneLayer, BonesOptions};
pub use contact::{ContactAxes, ContactLayout, contact_sheet};
