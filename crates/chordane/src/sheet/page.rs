//! The sheet itself: size, unit, ground, and where its origin stands.

use super::group::map_nodes;
use super::{GivenPaint, Item, Node, Paint};
use crate::ground::{Fault, FaultSlot, Given, named};
use crate::number::{Cell, Point};
use crate::path::Affine;

/// What a sheet unit is in the world.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!(sheet(210.0, 100.0).unit("mm").unit, Unit::Mm);
/// assert_eq!(Unit::In.pixels(), 96.0);
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
#[non_exhaustive]
pub enum Unit {
    /// The pixel of the web: 1/96 of an inch.
    #[default]
    Px,
    /// The millimetre.
    Mm,
    /// The inch.
    In,
}

named! { Unit: "unit"; "px" => Px, "mm" => Mm, "in" => In }

impl Unit {
    /// The size of the unit in pixels of 1/96 inch.
    #[must_use]
    pub fn pixels(self) -> f64 {
        match self {
            Self::Px => 1.0,
            Self::Mm => 96.0 / 25.4,
            Self::In => 96.0,
        }
    }

    /// The unit's short name, as files have it.
    #[must_use]
    pub fn suffix(self) -> &'static str {
        match self {
            Self::Px => "px",
            Self::Mm => "mm",
            Self::In => "in",
        }
    }
}

/// What is drawn on: a size, a ground, and items one over the other.
///
/// The origin is the top left corner and y runs down, unless [`Sheet::centred`] or [`Sheet::y_up`] say otherwise.
///
/// ```
/// use chordane::prelude::*;
/// let page: Sheet = sheet(90.0, 60.0).ground("#f4efe6").add(circle((45.0, 30.0), 20.0).fill("teal"));
/// assert_eq!((page.size, page.items().len()), (pt(90.0, 60.0), 1));
/// ```
#[derive(Clone, Debug, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize))]
pub struct Sheet {
    /// Width and height in the sheet's unit, above 0.
    pub size: Point,
    /// The unit that its coordinates are in.
    pub unit: Unit,
    /// What is painted all over it, below everything; transparent where that is `None`.
    pub ground: Option<Paint>,
    /// Whether the origin is the middle of the sheet, not its corner.
    pub centred: bool,
    /// Whether y points up.
    pub y_up: bool,
    /// What files carry along unseen.
    pub metadata: Option<Box<str>>,
    /// The title, for people who cannot see it.
    pub title: Option<Box<str>>,
    /// What is to be seen on it, for people who cannot see it.
    pub description: Option<Box<str>>,
    pub(crate) nodes: Vec<Node>,
    #[cfg_attr(feature = "serde", serde(skip))]
    pub(crate) view: DocumentView,
    #[cfg_attr(feature = "serde", serde(skip_deserializing, skip_serializing_if = "FaultSlot::is_empty"))]
    pub(crate) fault: FaultSlot,
}

/// Of a sheet that was read from a document: how its own coordinates are put on the sheet. Two sheets may be equal however
/// they came about.
#[derive(Clone, Debug, Default)]
pub(crate) struct DocumentView(pub(crate) Option<Box<Affine>>);

impl PartialEq for DocumentView {
    fn eq(&self, _: &Self) -> bool {
        true
    }
}

/// A sheet of a width and a height, in pixels unless [`Sheet::unit`] says otherwise; without a ground, so what is
/// not painted is transparent.
///
/// A width or height of zero or below is a fault.
///
/// ```
/// use chordane::prelude::*;
/// let sheet = sheet(640.0, 480.0).centred().ground("#f4efe6").add(circle((0.0, 0.0), 90.0).fill("teal"));
/// assert!(sheet.svg()?.starts_with("<svg"));
/// # Ok::<(), Fault>(())
/// ```
#[must_use]
pub fn sheet(width: f64, height: f64) -> Sheet {
    let (unit, ground, centred, y_up, metadata, nodes, view, fault) = Default::default();
    let (size, title, description) = (Point::new(width, height), None, None);
    let mut sheet =
        Sheet { size, unit, ground, centred, y_up, metadata, title, description, nodes, view, fault };
    sheet.fault = sheet.header_fault();
    sheet
}

impl Sheet {
    /// The first fault of its making, then of its size.
    pub(crate) fn header_fault(&self) -> FaultSlot {
        let mut fault = self.fault.clone();
        for (what, value) in [("width", self.size.x), ("height", self.size.y)] {
            fault.positive("sheet", what, value);
        }
        if let Some(Err(wrong)) = self.ground.as_ref().map(|ground| ground.check("ground")) {
            fault.note(wrong);
        }
        fault
    }

    /// Puts the origin in the middle of the sheet.
    #[must_use]
    pub fn centred(mut self) -> Self {
        self.centred = true;
        self
    }

    /// Lets y run up, from the bottom left corner (or the middle, when centred). Angles that turn clockwise as seen
    /// on a sheet with y down then turn anticlockwise as seen.
    #[must_use]
    pub fn y_up(mut self) -> Self {
        self.y_up = true;
        self
    }

    /// What one sheet unit is: `Unit` or `"px"`, `"mm"`, `"in"`. Files are then made at true size.
    #[must_use]
    pub fn unit(mut self, unit: impl Into<Given<Unit>>) -> Self {
        match unit.into().resolve("unit") {
            Ok(unit) => self.unit = unit,
            Err(fault) => self.fault.note(fault),
        }
        self
    }

    /// Of a sheet that was read from a document: the transform that puts the document's own user units on the sheet; else
    /// `None`. Figures, findings and their places are in those units.
    #[must_use]
    pub fn document_view(&self) -> Option<&Affine> {
        self.view.0.as_deref()
    }

    /// The same sheet with another transform from the units of figures and findings to its own; see [`Sheet::document_view`].
    /// `None` for the sheet's own units.
    #[must_use]
    pub fn with_document_view(mut self, view: impl Into<Option<Affine>>) -> Self {
        self.view = DocumentView(view.into().map(Box::new));
        self
    }

    /// Covers the whole sheet with a colour, under everything else.
    #[must_use]
    pub fn ground(mut self, paint: impl Into<GivenPaint>) -> Self {
        match paint.into().resolve("ground") {
            Ok(paint) => self.ground = Some(paint),
            Err(fault) => self.fault.note(fault),
        }
        self
    }

    /// Sets the title of the picture, written as `<title>` in SVG files and read out by screen readers.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let page = sheet(9.0, 9.0).title("A vent").description("A round hole in a red sail.");
    /// assert!(page.svg()?.contains("<title>A vent</title>\n<desc>A round hole in a red sail.</desc>"));
    /// # Ok::<(), Fault>(())
    /// ```
    #[must_use]
    pub fn title(mut self, title: impl Into<String>) -> Self {
        self.title = Some(title.into().into());
        self
    }

    /// What is to be seen on it, for those who cannot see it: the description of an SVG file.
    #[must_use]
    pub fn description(mut self, text: impl Into<String>) -> Self {
        self.description = Some(text.into().into());
        self
    }

    /// A text that files carry along unseen: how the drawing was made, for example. With the feature `svg-read`,
    /// `read::read_metadata` finds it again.
    #[must_use]
    pub fn metadata(mut self, text: impl Into<String>) -> Self {
        self.metadata = Some(text.into().into());
        self
    }

    /// Adds a path, an item or a group on top of what there is.
    #[must_use]
    #[allow(clippy::should_implement_trait, reason = "the sheet's word; nothing is summed")]
    pub fn add(mut self, node: impl Into<Node>) -> Self {
        self.nodes.push(node.into());
        self
    }

    /// Adds each of several, in order.
    #[must_use]
    pub fn add_all<N: Into<Node>>(mut self, nodes: impl IntoIterator<Item = N>) -> Self {
        self.nodes.extend(nodes.into_iter().map(Into::into));
        self
    }

    /// The same sheet with other contents; its size, texts and the rest stay.
    #[must_use]
    pub fn with_nodes<N: Into<Node>>(mut self, nodes: impl IntoIterator<Item = N>) -> Self {
        self.nodes = nodes.into_iter().map(Into::into).collect();
        self
    }

    /// Applies a function to each item, also in groups, and keeps the rest as it is. Masks and patterns are not entered.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let drawn = r##"<svg xmlns="http://www.w3.org/2000/svg" width="90" height="60" viewBox="0 0 90 60">
    ///     <g transform="rotate(5)"><circle cx="45" cy="30" r="20" fill="teal" stroke="#20303c"/></g></svg>"##;
    /// let sheet = Sheet::read_svg(drawn.as_bytes())?.sheet;
    /// let recoloured = sheet.map_items(|item| item.fill("gold"));
    /// assert!(recoloured.svg()?.contains("stroke=\"#20303c\"") && recoloured.svg()?.contains("#ffd700"));
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    #[must_use]
    pub fn map_items<N: Into<Node>>(mut self, mut map: impl FnMut(Item) -> N) -> Self {
        let nodes = std::mem::take(&mut self.nodes);
        self.with_nodes(map_nodes(nodes, &mut |item| map(item).into()))
    }

    /// The same sheet with a fault, unless it carries one already.
    #[must_use]
    pub fn with_fault(mut self, fault: Fault) -> Self {
        self.fault.note(fault);
        self
    }

    /// What is on the sheet, in the order of drawing.
    #[must_use]
    pub fn nodes(&self) -> &[Node] {
        &self.nodes
    }

    /// The first fault of the sheet's own making; what is on it is not looked at. Constant cost.
    #[must_use]
    pub fn own_fault(&self) -> Option<&Fault> {
        self.fault.get()
    }

    /// The whole sheet as a cell, in the coordinates of what is added to it.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// assert_eq!(sheet(640.0, 480.0).centred().cell(), cell((-320.0, -240.0), 640.0, 480.0));
    /// ```
    #[must_use]
    pub fn cell(&self) -> Cell {
        let corner = if self.y_up && !self.centred { Point::ZERO } else { self.corner() };
        crate::number::cell(corner, self.size.x, self.size.y)
    }

    /// The place of the sheet's top left corner, in its own coordinates with y down.
    pub(crate) fn corner(&self) -> Point {
        if self.centred { self.size * -0.5 } else { Point::ZERO }
    }

    /// From the coordinates of what is added to coordinates with y down.
    pub(crate) fn upright(&self) -> Affine {
        let height = if self.centred { 0.0 } else { self.size.y };
        if self.y_up {
            Affine::from_translation(Point::new(0.0, height)) * Affine::from_scale(Point::new(1.0, -1.0))
        } else {
            Affine::IDENTITY
        }
    }
}
