//! Gradients, patterns and pictures of a document as paint.

use roxmltree::NodeId;

use super::attributes::{Along, length, share};
use super::error::ReadError;
use super::properties::{BLACK, Paint, paint_of};
use super::transforms::Transform;
use super::tree::{Element, children, href, id_of, name, start_of};
use super::viewport::{fitted, view_box};
use super::walk::Walk;
use crate::number::{Cell, Point};
use crate::path::Affine;
use crate::sheet::{
    self, Colour, Gradient, Group, Layered, Node, group, linear_gradient, pattern, radial_gradient,
};

/// Maximum length of a chain of `href` references between paint servers.
const MAX_HREF_DEPTH: usize = 8;

/// What a paint server is asked for.
pub(super) struct Painted<'p> {
    /// The bounds of what is painted, in user units.
    pub(super) bounds: Option<Cell>,
    pub(super) viewport: Point,
    /// The opacity that it is painted with.
    pub(super) share: f64,
    /// What it is asked for by: `fill` or `stroke`.
    pub(super) of: Element<'p>,
}

impl<'a> Walk<'a> {
    /// The paint of an id; what of it is not understood is noted. The errors of what is drawn for a pattern are handed on.
    pub(super) fn server(&mut self, id: &str, on: &Painted<'_>) -> Result<Option<sheet::Paint>, ReadError> {
        let Some(element) = self.document.by_id(id) else {
            self.note(
                start_of(on.of),
                format!("\"{}\" as paint is not in the document", super::error::shortened(id)),
            );
            return Ok(None);
        };
        // Bounds without a width or a height are none.
        let boxed = on.bounds.is_some_and(|bounds| bounds.size().min_element() > 0.0);
        let key = (element.id(), [on.share, on.viewport.x, on.viewport.y].map(f64::to_bits));
        if let Some(known) = self.paints.get(&key).filter(|_| boxed) {
            return Ok(Some(known.clone()));
        }
        match name(element) {
            "linearGradient" | "radialGradient" => {
                let made = self.gradient(element, on);
                if boxed && let Some(paint) = &made {
                    self.paints.insert(key, paint.clone());
                }
                Ok(made)
            }
            "pattern" => self.pattern(element, on, key),
            name => {
                let told = format!("a <{name}> as paint is left out: it is no gradient and no pattern");
                self.note(start_of(on.of), told);
                Ok(None)
            }
        }
    }

    /// The chain of elements that one takes what it does not say itself from, itself first.
    fn chain(&self, element: Element<'a>) -> Vec<Element<'a>> {
        let next = |element: &Element<'a>| self.document.by_id(id_of(href(*element)?));
        let mut chain: Vec<Element<'a>> = Vec::new();
        for element in std::iter::successors(Some(element), next).take(MAX_HREF_DEPTH) {
            if chain.contains(&element) {
                break;
            }
            chain.push(element);
        }
        chain
    }

    fn stops(&self, chain: &[Element<'a>], opacity: f64) -> Vec<(f64, Colour)> {
        let stops_of = |element: &Element<'a>| {
            let mut last = 0.0_f64;
            let stops = children(*element).filter(|child| name(*child) == "stop").map(|stop| {
                last = last.max(stop.attribute("offset").and_then(share).unwrap_or(0.0));
                (last, self.colour(stop, "stop-color", "stop-opacity").faded(opacity))
            });
            Some(stops.collect::<Vec<_>>()).filter(|stops| !stops.is_empty())
        };
        chain.iter().find_map(stops_of).unwrap_or_default()
    }

    /// The colour of a property and the opacity of another, black where it is not said.
    pub(super) fn colour(&self, element: Element<'a>, colour: &str, opacity: &str) -> Colour {
        let found = match self.document.property(element, colour).and_then(paint_of) {
            Some(Paint::Current) => self.document.inherited(element, "color").and_then(paint_of),
            other => other,
        };
        let colour = match found {
            Some(Paint::Plain(colour)) => colour,
            _ => BLACK,
        };
        colour.faded(self.document.property(element, opacity).and_then(share).unwrap_or(1.0))
    }

    fn gradient(&mut self, element: Element<'a>, on: &Painted<'_>) -> Option<sheet::Paint> {
        let chain = self.chain(element);
        let stops = self.stops(&chain, on.share);
        match stops.as_slice() {
            [] => return None,
            [(_, only)] => return Some(sheet::Paint::Solid(*only)),
            _ => {}
        }
        let boxed = through(&chain, "gradientUnits") != Some("userSpaceOnUse");
        let at = |name: &str, along: Along, default: &str| {
            let text = through(&chain, name).unwrap_or(default);
            let room = if boxed { Point::ONE } else { on.viewport };
            // The diagonal of a box of shares is 1.
            let along = if boxed { Along::X } else { along };
            length(text, along, room).unwrap_or(0.0)
        };
        let point =
            |x: (&str, &str), y: (&str, &str)| Point::new(at(x.0, Along::X, x.1), at(y.0, Along::Y, y.1));
        let linear = name(element) == "linearGradient";
        let mut made: Gradient = if linear {
            linear_gradient(point(("x1", "0%"), ("y1", "0%")), point(("x2", "100%"), ("y2", "0%")))
        } else {
            let centre = point(("cx", "50%"), ("cy", "50%"));
            let given = |name: &str| through(&chain, name).is_some();
            let focus = Point::new(
                if given("fx") { at("fx", Along::X, "0") } else { centre.x },
                if given("fy") { at("fy", Along::Y, "0") } else { centre.y },
            );
            radial_gradient(centre, at("r", Along::Both, "50%").max(0.0))
                .focus_circle(focus, at("fr", Along::Both, "0%").max(0.0))
        };
        for (offset, colour) in stops {
            made = made.stop(offset, colour);
        }
        if let Some(spread) =
            through(&chain, "spreadMethod").filter(|text| ["repeat", "reflect"].contains(text))
        {
            made = made.spread(spread);
        }
        let by = Transform::of_server(self.document, &chain, "gradientTransform", on.viewport);
        if by.matrix2.determinant() == 0.0 {
            return None;
        }
        made = made.transformed(&by);
        if boxed {
            // Bounds without width or height are none.
            on.bounds.filter(|bounds| bounds.size().min_element() > 0.0)?;
            made = made.measured("box");
        }
        made.sound().ok()?;
        Some(sheet::Paint::Gradient(std::sync::Arc::new(made)))
    }

    fn pattern(
        &mut self,
        element: Element<'a>,
        on: &Painted<'_>,
        key: (NodeId, [u64; 3]),
    ) -> Result<Option<sheet::Paint>, ReadError> {
        if self.uses.contains(&element.id()) {
            self.note(start_of(on.of), "a pattern that is painted with itself is left out".to_owned());
            return Ok(None);
        }
        let chain = self.chain(element);
        let boxed = through(&chain, "patternUnits") != Some("userSpaceOnUse");
        let Some(bounds) = on.bounds.or(Some(Cell { min: Point::ZERO, max: Point::ZERO }).filter(|_| !boxed))
        else {
            return Ok(None);
        };
        let room = if boxed { Point::ONE } else { on.viewport };
        let at = |name: &str, along: Along| {
            through(&chain, name).and_then(|text| length(text, along, room)).unwrap_or(0.0)
        };
        let (corner, size) = (
            Point::new(at("x", Along::X), at("y", Along::Y)),
            Point::new(at("width", Along::X), at("height", Along::Y)),
        );
        let scale = if boxed { bounds.size() } else { Point::ONE };
        let min = if boxed { bounds.min + corner * scale } else { corner };
        let cell = Cell { min, max: min + size * scale };
        if cell.size().min_element() <= 0.0 {
            return Ok(None);
        }
        let own = Cell { min: Point::ZERO, max: cell.size() };
        let shared = through(&chain, "patternContentUnits") == Some("objectBoundingBox");
        let inner = match through(&chain, "viewBox").and_then(view_box) {
            Some(view) => fitted(&view, &own, through(&chain, "preserveAspectRatio")),
            None if shared => Affine::from_scale(bounds.size()),
            None => Affine::IDENTITY,
        };
        let content = Affine::from_translation(min) * inner;
        let filled = |element: &&Element<'a>| children(**element).next().is_some();
        let Some(&of) = chain.iter().find(filled) else { return Ok(None) };
        let from = self.handed_down(of, on.viewport);
        let mut nodes = Vec::new();
        self.uses.push(element.id());
        let made = self.inside(of, &from, content, &mut nodes);
        self.uses.pop();
        made?;
        let by = Transform::of_server(self.document, &chain, "patternTransform", on.viewport);
        if by.matrix2.determinant() == 0.0 {
            return Ok(None);
        }
        if let Some(picture) = alone(&nodes, &cell, on).filter(|_| by == Affine::IDENTITY) {
            return Ok(Some(picture));
        }
        let drawing: Group = group().add_all(nodes).opacity(on.share);
        let made = pattern(cell, drawing).transformed(&by);
        let paint: Option<sheet::Paint> = made.sound().is_ok().then(|| made.clone().into());
        if !boxed
            && !shared
            && let Some(paint) = &paint
        {
            self.paints.insert(key, paint.clone());
        }
        Ok(paint)
    }
}

/// What the first of some elements says that says it.
fn through<'a>(chain: &[Element<'a>], name: &str) -> Option<&'a str> {
    chain.iter().find_map(|element| element.attribute(name))
}

/// A single picture in a cell that reaches over all that is painted: then nothing is repeated, and the picture itself can be the paint.
fn alone(nodes: &[Node], cell: &Cell, on: &Painted<'_>) -> Option<sheet::Paint> {
    let bounds =
        on.bounds.filter(|bounds| on.share >= 1.0 && cell.contains(bounds.min) && cell.contains(bounds.max));
    bounds?;
    let [Node::Item(item)] = nodes else { return None };
    let plain = item.compositing().is_plain() && item.style().opacity >= 1.0;
    let Some(sheet::Paint::Picture(picture)) = item.style().fill.as_ref().filter(|_| plain) else {
        return None;
    };
    let to = &item.placement.transform;
    let upright = to.matrix2.x_axis.y == 0.0 && to.matrix2.y_axis.x == 0.0;
    let area = item.path().transformed(to).bounds().filter(|_| upright && to.matrix2.determinant() > 0.0)?;
    let within = cell.contains(area.min)
        && cell.contains(area.max)
        && picture.area(item.path().bounds())? == item.path().bounds()?;
    within.then(|| (**picture).clone().fitted("stretch").over(area).into())
}
