//! Drawing: a scene becomes pixels.

mod blend;
mod cover;
mod gradients;
mod ink;
mod layers;
mod pixels;
mod plan;
mod reach;
mod shader;
mod shapes;

pub(crate) use plan::DRAFT;

pub use pixels::{DrawError, MOST_PIXELS_A_SIDE, PixelOptions, Pixels};
