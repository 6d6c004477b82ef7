//! Drawing: a scene becomes pixels.

mod blend;
mod blur;
mod cover;
mod effects;
mod gradients;
mod grain;
mod ink;
mod items;
mod layers;
mod pixel;
mod pixels;
mod plan;
mod reach;
mod sampler;
mod shader;
mod shades;
mod shapes;

pub(crate) use items::DRAFT_COLOUR;
pub(crate) use shades::path_colours;

pub use pixels::{DrawError, Pixels};
