//! Reshapes: a path in, a path out.

mod dash;
mod flat;
mod outline;

pub use dash::MOST_DASHES;
pub use outline::{Cap, Join, Outline};

pub(crate) use flat::FlatPath;
