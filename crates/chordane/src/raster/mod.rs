//! Drawing: a scene becomes pixels.

mod blend;
mod blur;
mod cover;
mod effects;
mod gradients;
mod ink;
mod layers;
mod parts;
mod pixel;
mod pixels;
mod plan;
mod reach;
mod shader;
mod shapes;

pub(crate) use plan::DRAFT;

pub use pixels::{DrawError, MOST_PIXELS_A_SIDE, PixelOptions, Pixels};
