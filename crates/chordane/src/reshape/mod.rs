//! Reshapes: a path in, a path out.

mod dash;
mod edit;
mod flat;
mod nib;
mod outline;
mod waves;

pub use dash::MOST_DASHES;
pub use edit::VertexAt;
pub use nib::Nib;
pub use outline::{Cap, Join, Outline};

pub(crate) use flat::FlatPath;
