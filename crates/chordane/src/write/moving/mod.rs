//! SVG documents that move: frames laid one on the other, and what differs said with SVG's animation elements.

mod drawn;
mod frames;
mod keys;
mod motion;
mod pattern;
mod refine;

pub use frames::{StillOnly, SvgFrames, Unsaid};
