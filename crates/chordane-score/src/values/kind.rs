//! The kinds of values that scripts hold, in plain words.

use chordane::chance::Dice;
use chordane::number::Cell;
use chordane::prelude::*;
use rhai::{Array, Dynamic};

use super::Builder;
use super::moving::ScoreKeys;
use super::plain::{count, extent, number, point, vertex};
use super::stamp::ScoreStamp;

/// What kind of value something is, as far as the words care.
///
/// ```
/// use chordane_score::words::Kind;
/// assert_eq!((Kind::Path.plain(), Kind::Path.described()), ("path", "a path"));
/// ```
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub enum Kind {
    /// A number, whole or not.
    Number,
    /// A whole number from 0 up.
    Count,
    /// A point: `pt(x, y)` or `[x, y]`.
    Point,
    /// An angle.
    Angle,
    /// A text.
    Text,
    /// A colour: a value or a CSS text.
    Colour,
    /// A list of colours.
    Colours,
    /// A gradient.
    Gradient,
    /// A picture of pixels.
    Picture,
    /// A drawing that is repeated.
    Pattern,
    /// What something is painted with: a colour, a gradient, a picture, a pattern or colours that follow a path.
    Paint,
    /// A pen that draws a contour.
    Pen,
    /// A path.
    Path,
    /// A path with a style.
    Item,
    /// A style.
    Style,
    /// A group.
    Group,
    /// A sheet.
    Sheet,
    /// A path, an item or a group: what can be added.
    Node,
    /// A list of what can be added.
    Nodes,
    /// A list of items.
    Items,
    /// A list of points.
    Points,
    /// A list of numbers.
    Numbers,
    /// A list of angles.
    Angles,
    /// A vertex of a smooth curve; a point is a soft one.
    Vertex,
    /// A list of vertices of a smooth curve.
    Vertices,
    /// A smooth curve before it is closed or left open.
    Curve,
    /// A cell.
    Cell,
    /// A list of cells.
    Cells,
    /// An extent; a number is one too.
    Extent,
    /// A list of extents.
    Extents,
    /// A triangle.
    Triangle,
    /// True or false.
    Flag,
    /// A list of texts.
    Texts,
    /// Dice.
    Dice,
    /// Turning wheels.
    Wheels,
    /// A thing to set down along a path.
    Stamp,
    /// What can swing and have keys: a number, an angle, a point, a colour, an extent, a pose or a path.
    Moving,
    /// Keys: values at times.
    Keys,
    /// A pose.
    Pose,
    /// A timeline.
    Timeline,
    /// A function of a score: `|share| pt(share, 0)`.
    Function,
    /// A list of anything.
    List,
    /// Anything.
    Value,
}

impl Kind {
    /// The kind in a sentence, with its article.
    #[must_use]
    pub fn described(self) -> &'static str {
        match self {
            Self::Number => "a number",
            Self::Count => "a whole number from 0 up",
            Self::Point => "a point",
            Self::Angle => "an angle",
            Self::Text => "a text",
            Self::Colour => "a colour",
            Self::Colours => "a list of colours",
            Self::Gradient => "a gradient",
            Self::Picture => "a picture",
            Self::Pattern => "a pattern",
            Self::Paint => "a colour or another paint",
            Self::Pen => "a pen",
            Self::Path => "a path",
            Self::Item => "an item",
            Self::Style => "a style",
            Self::Group => "a group",
            Self::Sheet => "a sheet",
            Self::Node => "a path, an item or a group",
            Self::Nodes => "a list of paths, items and groups",
            Self::Items => "a list of items",
            Self::Points => "a list of points",
            Self::Numbers => "a list of numbers",
            Self::Angles => "a list of angles",
            Self::Vertex => "a vertex",
            Self::Vertices => "a list of points and vertices",
            Self::Curve => "a smooth curve",
            Self::Cell => "a cell",
            Self::Cells => "a list of cells",
            Self::Extent => "a number or an extent",
            Self::Extents => "a list of numbers and extents",
            Self::Triangle => "a triangle",
            Self::Flag => "true or false",
            Self::Texts => "a list of texts",
            Self::Dice => "dice",
            Self::Wheels => "wheels",
            Self::Stamp => "a stamp",
            Self::Moving => "a number, an angle, a point, a colour, an extent, a pose or a path",
            Self::Keys => "keys",
            Self::Pose => "a pose",
            Self::Timeline => "a timeline",
            Self::Function => "a function",
            Self::List => "a list",
            Self::Value => "a value",
        }
    }

    /// The kind alone, as in a heading.
    #[must_use]
    pub fn plain(self) -> &'static str {
        let text = self.described();
        text.strip_prefix("a ").or_else(|| text.strip_prefix("an ")).unwrap_or(text)
    }

    /// How to write a value of the kind, where that is what people forget.
    pub(crate) fn mend(self) -> Option<&'static str> {
        match self {
            Self::Angle => Some("write deg(90), turns(0.25) or rad(PI / 2)"),
            Self::Point => Some("write pt(x, y) or [x, y]"),
            Self::Points => Some("write [[0, 0], [10, 0], [10, 10]]"),
            Self::Path => Some("a pen or a smooth curve becomes a path by close() or open()"),
            Self::Vertices => Some("write [[0, 0], soft([10, 5]), corner([20, 0])]"),
            Self::Cell => Some("write cell(pt(0, 0), 200, 100), or sheet.cell()"),
            Self::Extent => Some("write 12, part(0.5) or part(0.5) + 12"),
            Self::Node => Some("a pen becomes a path by close() or open(); add several with add_all([..])"),
            Self::Function => Some("write |share| pt(share, 0), or the name of a function as Fn(\"name\")"),
            Self::Text => Some("write it in quotes: \"hem\""),
            Self::Colour | Self::Paint => Some("write \"#c8553d\", \"teal\" or hsl(deg(20), 60, 50)"),
            _ => None,
        }
    }

    pub(crate) fn accepts(self, value: &Dynamic) -> bool {
        match self {
            Self::Number => number(value).is_some(),
            Self::Count => count(value).is_some(),
            Self::Point => point(value).is_some(),
            Self::Angle => value.is::<Angle>(),
            Self::Text => value.is_string(),
            Self::Colour => value.is::<Colour>() || value.is_string(),
            Self::Colours => list_of(value, Self::Colour),
            Self::Gradient => value.is::<Gradient>(),
            Self::Picture => value.is::<Picture>(),
            Self::Pattern => value.is::<Pattern>(),
            Self::Paint => {
                let ours = value.is::<Gradient>() || value.is::<Picture>();
                ours || value.is::<Pattern>() || value.is::<Shades>() || Self::Colour.accepts(value)
            }
            Self::Pen => value.is::<Builder<Pen>>(),
            Self::Path => value.is::<Path>(),
            Self::Item => value.is::<Item>(),
            Self::Style => value.is::<Style>(),
            Self::Group => value.is::<Builder<Group>>(),
            Self::Sheet => value.is::<Builder<Sheet>>(),
            Self::Node => value.is::<Path>() || value.is::<Item>() || value.is::<Builder<Group>>(),
            Self::Nodes => list_of(value, Self::Node),
            Self::Items => list_of(value, Self::Item),
            Self::Points => list_of(value, Self::Point),
            Self::Numbers => list_of(value, Self::Number),
            Self::Angles => list_of(value, Self::Angle),
            Self::Vertex => vertex(value).is_some(),
            Self::Vertices => list_of(value, Self::Vertex),
            Self::Curve => value.is::<Through>(),
            Self::Cell => value.is::<Cell>(),
            Self::Cells => list_of(value, Self::Cell),
            Self::Extent => extent(value).is_some(),
            Self::Extents => list_of(value, Self::Extent),
            Self::Triangle => value.is::<Triangle>(),
            Self::Flag => value.is_bool(),
            Self::Texts => list_of(value, Self::Text),
            Self::Dice => value.is::<Builder<Dice>>(),
            Self::Wheels => value.is::<Wheels>(),
            Self::Stamp => value.is::<ScoreStamp>(),
            Self::Moving => {
                let plain = [Self::Extent, Self::Point, Self::Angle, Self::Colour, Self::Pose, Self::Path];
                plain.into_iter().any(|kind| kind.accepts(value))
            }
            Self::Keys => value.is::<ScoreKeys>(),
            Self::Pose => value.is::<Pose>(),
            Self::Timeline => value.is::<Timeline>(),
            Self::Function => value.is_fnptr(),
            Self::List => value.is_array(),
            Self::Value => true,
        }
    }
}

fn list_of(value: &Dynamic, kind: Kind) -> bool {
    value.read_lock::<Array>().is_some_and(|list| list.iter().all(|one| kind.accepts(one)))
}
