//! Drafts: shapes that are drawn vertex by vertex, over a picture or on their own. What is done are [`Step`]s, and what they make can be undone and done
//! again without limit.

mod areas;
mod drawing;
mod edges;
mod find;
mod history;
mod outline_fit;
mod shapes;

pub use edges::PictureEdges;
pub use history::{Draft, Step, StepError};
pub use shapes::{DraftShape, DraftVertex, VertexKind};
