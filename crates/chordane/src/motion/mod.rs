//! Motion: values and shapes that depend on a phase, which goes from 0 to 1 and comes round. All of it is a pure function of the
//! phase, so that any frame can be drawn alone.

mod curve;
mod easing;
mod easing_text;
mod keyed;
mod keys;
mod parts;
mod pose;
mod ride;
mod spring;
mod timeline;
mod wave;

pub use curve::Jump;
pub use easing::{Easing, ease};
pub use keyed::Keyed;
pub use keys::{Keys, Way, keys};
pub(crate) use parts::Parts;
pub use pose::{Pose, pose};
pub use ride::{Marching, Posed};
pub use timeline::{Timeline, timeline};
pub use wave::{hold, pulse, rounds, saw, swing};
