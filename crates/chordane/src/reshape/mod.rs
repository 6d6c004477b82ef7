//! Reshapes: a path in, a path out.

mod chain;
mod chords;
mod copies;
mod corners;
mod curve_fit;
mod dash;
mod edging;
mod edit;
mod flank;
mod flat;
mod holes;
mod joined;
mod line_style;
mod nib;
mod offset;
mod pattern;
mod round;
mod shake;
mod stamp;
mod taper;
mod thin;
mod trim;
mod warp;
mod waves;

pub use chain::{Chain, Reshape, ReshapeFn};
pub use copies::{Mirror, Spin};
pub use curve_fit::CurveFit;
pub use dash::{Dash, DashFit};
pub use edit::VertexAt;
pub use line_style::{Cap, Join, LineStyle};
pub use nib::Nib;
pub use offset::Offset;
pub use pattern::MAX_DASHES;
pub(crate) use pattern::is_too_fine;
pub use round::Round;
pub use shake::Shake;
pub use stamp::{Stamp, StampOrientation, StampPlace, StampSpacing};
pub use taper::Taper;
pub use thin::{Subdivide, Thin};
pub use trim::Trim;
pub use warp::{Bend, Warp};
pub use waves::{Ripple, RippleShape};

pub(crate) use corners::jump;
pub(crate) use flat::FlatPath;
