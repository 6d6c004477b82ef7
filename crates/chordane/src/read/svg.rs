//! An SVG document as a sheet: shapes, groups, transforms, `use`, and the paints that shapes inherit.

use crate::ground::interruptible;
use crate::sheet::{Layered, Styled};
use std::collections::HashMap;

use super::attributes::{Along, length, numbers, with_unit};
use super::document::Document;
use super::error::shortened;
use super::error::{ReadError, SvgReading};
use super::layers::{bounds_of, is_spoken};
use super::servers::Painted;
use super::shapes::drawn;
use super::transforms::{Transform, step_of};
use super::tree::{Element, children, href, is_svg, name, parse, start_of};
use super::viewport::{fitted, view_box};
use super::walk::{Inherited, Own, Walk};
use crate::number::{Cell, IntoPoint, Point};
use crate::path::{Affine, Path};
use crate::scene::{Placed, Scene};
use crate::shape::rectangle;
use crate::sheet::{DocumentView, Group, Item, Node, Sheet, Style, Unit, group, sheet};

/// The size of a document that does not say it.
const DEFAULT_SIZE: Point = Point::new(300.0, 150.0);

impl Sheet {
    /// Reads an SVG document (SVG 1.1 and 2): paths, basic shapes, groups, transforms, `use`, `symbol` and `defs`,
    /// nested `svg`, view boxes, transforms, and the paint, stroke and opacity properties, from attributes, `style` and style
    /// sheets, with inheritance. Selectors can use names, classes, ids, attributes, all four combinators, `:root`, `:first-child`, `:last-child` and `:nth-child`.
    ///
    /// The sheet has the document's size, in millimetres or inches where the document is given in those. Items carry
    /// their `id` as name and the line of their element. Gradients, patterns, embedded PNG and JPEG images, clips, masks, blend modes, and filters that consist
    /// of blurs and shadows are supported. Text, markers, other filters and other selectors are skipped, with one note for each kind. Elements of other
    /// namespaces are skipped without a note. Nothing is ever fetched: not images, style sheets or entities. Cost: linear in the document with every `use` expanded.
    ///
    /// # Errors
    ///
    /// Bytes that are not UTF-8, text that is not well-formed XML, a root that is not an `svg` element; and documents beyond these limits: 128 levels of
    /// nesting, eight million XML nodes, 16 MiB of expanded entities, and, with every `use` expanded, two million shapes, five million elements and forty million
    /// vertices.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let document = r#"<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 30"><g fill="teal"><circle r="9"/></g></svg>"#;
    /// let reading = Sheet::read_svg(document.as_bytes()).unwrap();
    /// assert_eq!((reading.sheet.size, reading.notes.len()), (pt(40.0, 30.0), 0));
    /// assert_eq!(Sheet::read_svg(b"<p/>").unwrap_err().to_string(), "there is no <svg> element; give an SVG document");
    /// ```
    pub fn read_svg(bytes: &[u8]) -> Result<SvgReading, ReadError> {
        read(bytes, None)
    }

    /// As [`Sheet::read_svg`], shown at a size in pixels as a browser shows an image of that size: the view box is fitted into
    /// it as the document's `preserveAspectRatio` says. A document without a view box keeps its own size.
    ///
    /// # Errors
    ///
    /// As [`Sheet::read_svg`].
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let document = br#"<svg viewBox="0 0 40 30" preserveAspectRatio="xMinYMin"><rect width="40" height="30"/></svg>"#;
    /// let wide = Sheet::read_svg_at(document, (200.0, 60.0)).unwrap().sheet;
    /// let bounds = wide.items().next().and_then(|item| item.line_bounds()).unwrap();
    /// assert_eq!((wide.size, bounds.max), (pt(200.0, 60.0), pt(80.0, 60.0)));
    /// ```
    pub fn read_svg_at(bytes: &[u8], size: impl IntoPoint) -> Result<SvgReading, ReadError> {
        read(bytes, Some(size.into_point()))
    }
}

fn read(bytes: &[u8], shown: Option<Point>) -> Result<SvgReading, ReadError> {
    match interruptible(|| read_all(bytes, shown)) {
        (Err(ReadError::Stopped { line, .. }), Some(why)) => Err(ReadError::Stopped { line, why }),
        (_, Some(why)) => Err(ReadError::Stopped { line: 1, why }),
        (read, None) => read,
    }
}

fn read_all(bytes: &[u8], shown: Option<Point>) -> Result<SvgReading, ReadError> {
    let bytes = bytes.strip_prefix(b"\xef\xbb\xbf").unwrap_or(bytes);
    let text =
        std::str::from_utf8(bytes).map_err(|error| ReadError::NotText { byte: error.valid_up_to() })?;
    let tree = parse(text)?;
    let root = tree.root_element();
    if !is_svg(root) || name(root) != "svg" {
        return Err(ReadError::NoSvg);
    }
    let document = Document::of(&tree);
    let newlines = text.bytes().enumerate().filter(|(_, byte)| *byte == b'\n').map(|(at, _)| at).collect();
    let mut walk = Walk {
        document: &document,
        newlines,
        notes: Vec::new(),
        noted: HashMap::new(),
        quiet: false,
        elements: 0,
        shapes: 0,
        vertices: 0,
        used: 0,
        uses: Vec::new(),
        paints: HashMap::new(),
        pictures: HashMap::new(),
        depth: 0,
    };
    for told in &document.told {
        walk.note_below(told.at, told.lines, told.what.clone());
    }
    for element in
        tree.descendants().filter(|node| is_svg(*node) && ANIMATION_ELEMENTS.contains(&name(*node)))
    {
        walk.note(
            start_of(element),
            format!("{} is ignored: the drawing is shown without its motion", name(element)),
        );
    }
    let (blank, root_place) = walk.blank(root, shown);
    let mut nodes = Vec::new();
    let from = walk.inherited(root, &Inherited::none(root_place.view.size()));
    walk.inside(root, &from, root_place.transform, &mut nodes)?;
    let mut sheet = blank.add_all(nodes);
    if let Some(title) = document.said("title") {
        sheet = sheet.title(&title);
    }
    if let Some(description) = document.said("desc") {
        sheet = sheet.description(&description);
    }
    Ok(SvgReading { sheet, notes: walk.notes })
}

/// The animation elements of SVG 1.1.
const ANIMATION_ELEMENTS: &[&str] = &["animate", "animateColor", "animateMotion", "animateTransform", "set"];

/// The view box of the document, and where it is put on the sheet.
struct RootPlace {
    view: Cell,
    transform: Affine,
}

/// The coordinate systems in which an element is placed.
struct Put {
    /// The transform of its parent.
    transform: Affine,
    /// Its own transform.
    by: Transform,
    /// An inner transform, which does not affect its bounds.
    inside: Affine,
    viewport: Point,
}

impl Put {
    /// Returns the product of all transforms, for an element with these nodes.
    fn around(&self, nodes: &[Node]) -> Affine {
        if !self.by.is_bound() {
            return self.transform * self.by.within(None, None) * self.inside;
        }
        let scene = Scene::of(nodes, &Affine::IDENTITY);
        let painted = scene.items().iter().filter_map(Placed::painted_bounds).reduce(Cell::union);
        self.transform * self.by.within(bounds_of(nodes), painted) * self.inside
    }
}

/// Elements inside one another, through `use` too, at most: each level takes some of the machine's stack.
const MAX_NESTING: usize = 160;

impl<'a> Walk<'a> {
    /// The empty sheet of the document's size, and where its view box is shown.
    fn blank(&mut self, root: Element<'a>, shown: Option<Point>) -> (Sheet, RootPlace) {
        let view = root.attribute("viewBox").and_then(|text| {
            let read = view_box(text);
            if read.is_none() {
                self.note(
                    start_of(root),
                    format!("viewBox=\"{}\" is not four numbers with a size: left out", shortened(text)),
                );
            }
            read
        });
        let side = |name: &str| root.attribute(name).and_then(with_unit).filter(|(size, _)| *size > 0.0);
        let (width, height) = (side("width"), side("height"));
        let unit = match (width, height) {
            (Some((_, "mm" | "cm")), Some((_, "mm" | "cm"))) => Unit::Mm,
            (Some((_, "in")), Some((_, "in"))) => Unit::In,
            _ => Unit::Px,
        };
        let basis = view.map_or(DEFAULT_SIZE, |view| view.size());
        let of = |given: Option<(f64, &str)>, along: Along| {
            let (size, unit_text) = given?;
            // Shares of a page that is not there: the view box's own size then.
            let text = format!("{size}{unit_text}");
            length(&text, along, basis).map(|px| px / unit.pixels()).filter(|size| *size > 0.0)
        };
        // Where one side is missing, it follows from the other and the view box.
        let size = match (of(width, Along::X), of(height, Along::Y)) {
            (Some(x), Some(y)) => Point::new(x, y),
            (Some(x), None) => Point::new(x, x * basis.y / basis.x),
            (None, Some(y)) => Point::new(y * basis.x / basis.y, y),
            (None, None) => basis,
        };
        // Shown at a size of its own, and then in pixels.
        let shown = shown.filter(|shown| view.is_some() && shown.cmpgt(Point::ZERO).all());
        let (size, unit) = shown.map_or((size, unit), |shown| (shown, Unit::Px));
        // A document without a view box is drawn in pixels, whatever its size is given in.
        let view = view.unwrap_or(Cell { min: Point::ZERO, max: size * unit.pixels() });
        let mut blank = sheet(size.x, size.y).unit(unit);
        let mut corner = Point::ZERO;
        if view.min == size * -0.5 {
            blank = blank.centred();
            corner = view.min;
        }
        let shown = Cell { min: corner, max: corner + size };
        let fitted = fitted(&view, &shown, root.attribute("preserveAspectRatio"));
        // The root's transform is in pixels from the top left corner; its default origin is the centre.
        let by = self.transform_of(root, size * unit.pixels()).about_the_middle().within(None, None);
        let pixels = Affine::from_scale(Point::splat(unit.pixels())) * Affine::from_translation(-corner);
        let transform = if by == Affine::IDENTITY { fitted } else { pixels.inverse() * by * pixels * fitted };
        blank.view = DocumentView(Some(Box::new(transform)));
        (blank, RootPlace { view, transform })
    }

    /// Adds what is inside an element, under a transform.
    pub(super) fn inside(
        &mut self,
        of: Element<'a>,
        from: &Inherited,
        transform: Affine,
        nodes: &mut Vec<Node>,
    ) -> Result<(), ReadError> {
        if self.depth >= MAX_NESTING {
            return Err(ReadError::TooDeep { line: self.line(start_of(of)), limit: MAX_NESTING });
        }
        self.depth += 1;
        for child in children(of) {
            self.element(child, from, transform, nodes)?;
        }
        self.depth -= 1;
        Ok(())
    }

    fn element(
        &mut self,
        element: Element<'a>,
        from: &Inherited,
        transform: Affine,
        nodes: &mut Vec<Node>,
    ) -> Result<(), ReadError> {
        if !is_svg(element) {
            return Ok(());
        }
        self.made(start_of(element), 0, 0)?;
        match name(element) {
            "defs" | "symbol" | "linearGradient" | "radialGradient" | "title" | "desc" | "metadata"
            | "clipPath" | "mask" | "filter" | "marker" | "pattern" | "script" | "style" => return Ok(()),
            name if ANIMATION_ELEMENTS.contains(&name) => return Ok(()),
            _ => {}
        }
        let inherited = self.inherited(element, from);
        let own = inherited.own.clone();
        if !own.shown {
            return Ok(());
        }
        let by = self.transform_of(element, from.viewport);
        let put = Put { transform, by, inside: Affine::IDENTITY, viewport: from.viewport };
        match name(element) {
            "g" | "a" => self.layer(nodes, element, own, put, |walk, by, nodes| {
                walk.inside(element, &inherited, by, nodes)
            }),
            "switch" => self.layer(nodes, element, own, put, |walk, by, nodes| {
                let extended = |child: &Element<'_>| child.attribute("requiredExtensions").is_some();
                let spoken = |child: &Element<'_>| is_spoken(child.attribute("systemLanguage"));
                let first = children(element).find(|child| spoken(child) && !extended(child));
                first.map_or(Ok(()), |child| walk.element(child, &inherited, by, nodes))
            }),
            "svg" => self.layer(nodes, element, own, put, |walk, by, nodes| {
                walk.nested(element, by, &inherited, None, nodes)
            }),
            "use" => {
                // Its `x` and `y` are an inner translation.
                let inside = Affine::from_translation(step_of(element, from.viewport));
                self.layer(nodes, element, own, Put { inside, ..put }, |walk, by, nodes| {
                    walk.used(element, &inherited, by, nodes)
                })
            }
            "image" => {
                self.made(start_of(element), 1, 4)?;
                if let Some(item) =
                    self.image(element, from.viewport).filter(|_| inherited.properties.visible)
                {
                    let item = item.opacity(own.opacity);
                    self.place(nodes, item, element, &own, &put)?;
                }
                Ok(())
            }
            name => {
                let Some(shape) = drawn(self.document, element, from.viewport) else {
                    let place = self.place_of(element);
                    self.note(
                        start_of(element),
                        format!("the element <{name}>{place} is not understood: left out"),
                    );
                    return Ok(());
                };
                if let Some(complaint) = shape.complaint {
                    self.note(
                        start_of(element),
                        format!("<{name}>: {complaint}: drawn as far as it is understood"),
                    );
                }
                let vertices = shape.path.contours().iter().map(|contour| contour.vertex_count()).sum();
                self.made(start_of(element), 1, vertices)?;
                if inherited.properties.visible && !shape.path.is_empty() && put.transform.is_finite() {
                    self.shape(nodes, element, shape.path, inherited, &put)?;
                }
                Ok(())
            }
        }
    }

    /// Returns the transform of an element.
    fn transform_of(&mut self, element: Element<'a>, viewport: Point) -> Transform {
        Transform::of(self.document, element, viewport, |name, value| self.bad_value(element, name, value))
    }

    /// Where a text would stand.
    fn place_of(&self, element: Element<'_>) -> String {
        let at = |name: &str| element.attribute(name).map(shortened);
        match (name(element), at("x"), at("y")) {
            ("text", Some(x), Some(y)) => format!(" at {x}, {y}"),
            _ => String::new(),
        }
    }

    /// Adds a shape.
    fn shape(
        &mut self,
        nodes: &mut Vec<Node>,
        element: Element<'_>,
        path: Path,
        inherited: Inherited,
        put: &Put,
    ) -> Result<(), ReadError> {
        let (bounds, viewport) = (path.bounds(), inherited.viewport);
        let (own, mut properties) = (inherited.own, inherited.properties);
        // Dashes go by the length that the document says the path has.
        let said = element.attribute("pathLength").and_then(numbers);
        if let Some([said]) = said.as_deref().filter(|all| all.iter().all(|said| *said > 0.0)) {
            properties = properties.with_dashes_scaled(path.length().unwrap_or(0.0) / said);
        }
        let mut failed = None;
        let style = properties.style(own.opacity, |id, share| {
            let on = Painted { bounds, viewport, share, of: element };
            self.server(id, &on).unwrap_or_else(|error| {
                failed = Some(error);
                None
            })
        });
        if let Some(error) = failed {
            return Err(error);
        }
        let path = path.with_fill_rule(properties.fill_rule);
        let both = style.fill.as_ref().is_some() && style.stroke.as_ref().is_some();
        if own.unscaled && style.stroke.as_ref().is_some() {
            let item = Item::from(path.clone()).styled(&style);
            let transform = put.around(&[item.into()]);
            // The line of what is transformed, and the fill as ever.
            let line = path.transformed(&transform);
            let (filled, stroked) = parted(&style);
            let fill = Item::from(path).styled(&filled).transformed(&transform);
            let together = group().opacity(style.opacity).add_all(both.then_some(fill));
            nodes.push(
                together.add(Item::from(line).styled(&stroked).at_line(self.line(start_of(element)))).into(),
            );
            return Ok(());
        }
        if properties.stroke_first && both {
            let (filled, stroked) = parted(&style);
            let transform = put.around(&[Item::from(path.clone()).styled(&style).into()]);
            let of =
                |style: &Style| Item::from(path.clone()).styled(style).at_line(self.line(start_of(element)));
            let together = group().opacity(style.opacity).add(of(&stroked)).add(of(&filled));
            let made = self.layered(together, &own, bounds, (element, viewport))?.transformed(&transform);
            nodes.push(self.named(element).map_or(made.clone(), |id| made.named(&id)).into());
            return Ok(());
        }
        let item = Item::from(path).styled(&style);
        self.place(nodes, item, element, &own, put)
    }

    fn named(&self, element: Element<'_>) -> Option<String> {
        element.attribute("id").map(str::to_owned)
    }

    /// Adds an item that was made of an element.
    fn place(
        &mut self,
        nodes: &mut Vec<Node>,
        item: Item,
        element: Element<'_>,
        own: &Own,
        put: &Put,
    ) -> Result<(), ReadError> {
        let bounds = item.path().bounds();
        let transform = put.around(&[item.clone().into()]);
        let item = self.layered(item, own, bounds, (element, put.viewport))?;
        let mut item = item.transformed(&transform).at_line(self.line(start_of(element)));
        if let Some(id) = self.named(element) {
            item = item.named(&id);
        }
        nodes.push(item.into());
        Ok(())
    }

    /// Adds what `fill` makes; in a group of its own, in the element's user units, where it is put on what is below it otherwise than just as it is.
    fn layer(
        &mut self,
        nodes: &mut Vec<Node>,
        element: Element<'_>,
        own: Own,
        put: Put,
        fill: impl FnOnce(&mut Self, Affine, &mut Vec<Node>) -> Result<(), ReadError>,
    ) -> Result<(), ReadError> {
        if own.is_plain() && !put.by.is_bound() {
            return fill(self, put.around(&[]), nodes);
        }
        let mut inside = Vec::new();
        fill(self, Affine::IDENTITY, &mut inside)?;
        let bounds = bounds_of(&inside);
        let transform = put.around(&inside);
        let mut layer: Group = group().opacity(own.opacity).add_all(inside);
        if own.isolated {
            layer = layer.isolated();
        }
        let mut layer = self.layered(layer, &own, bounds, (element, put.viewport))?.transformed(&transform);
        if let Some(id) = self.named(element) {
            layer = layer.named(&id);
        }
        nodes.push(layer.into());
        Ok(())
    }

    /// Adds what is in a nested `svg` or a `symbol`, cut off at its rim unless it may flow over; `size` is what a `use` says of it.
    fn nested(
        &mut self,
        element: Element<'a>,
        transform: Affine,
        from: &Inherited,
        size: Option<(Option<f64>, Option<f64>)>,
        nodes: &mut Vec<Node>,
    ) -> Result<(), ReadError> {
        let viewport = from.viewport;
        let own = |name: &str, along: Along| {
            self.document.property(element, name).and_then(|text| length(text, along, viewport))
        };
        let corner = match size {
            None => Point::new(own("x", Along::X).unwrap_or(0.0), own("y", Along::Y).unwrap_or(0.0)),
            Some(_) => Point::ZERO,
        };
        let (wide, high) = size.unwrap_or_default();
        let sides = Point::new(
            wide.or_else(|| own("width", Along::X)).unwrap_or(viewport.x),
            high.or_else(|| own("height", Along::Y)).unwrap_or(viewport.y),
        );
        let place = Cell { min: corner, max: corner + sides };
        let (by, viewport) = match element.attribute("viewBox").and_then(view_box) {
            Some(view) if sides.min_element() > 0.0 => {
                let how = element.attribute("preserveAspectRatio");
                (transform * fitted(&view, &place, how), view.size())
            }
            _ => (transform * Affine::from_translation(corner), sides.max(Point::ZERO)),
        };
        let from = Inherited { viewport, ..from.clone() };
        let flows = matches!(self.document.property(element, "overflow"), Some("visible" | "auto"));
        let mut inside = Vec::new();
        self.inside(element, &from, by, &mut inside)?;
        // What stays within needs no cutting.
        let back = transform.inverse();
        let scene = Scene::of(&inside, &back);
        // A tolerance for rounding, so that nothing is clipped needlessly.
        let near = place.grown(sides.max_element().abs() * 1e-9);
        let fits = |cell: Cell| near.contains(cell.min) && near.contains(cell.max);
        let plain = scene.items().iter().all(|placed| placed.plain) && back.is_finite();
        let within = plain && scene.items().iter().filter_map(Placed::painted_bounds).all(fits);
        if flows || within {
            nodes.extend(inside);
        } else {
            let rim = rectangle(place.min, sides.x.max(0.0), sides.y.max(0.0)).transformed(&transform);
            nodes.push(group().add_all(inside).clipped(rim).into());
        }
        Ok(())
    }

    /// What a `use` stands for.
    fn used(
        &mut self,
        element: Element<'_>,
        from: &Inherited,
        transform: Affine,
        nodes: &mut Vec<Node>,
    ) -> Result<(), ReadError> {
        let href = href(element).unwrap_or_default();
        let Some(target) = href.strip_prefix('#').and_then(|id| self.document.by_id(id)) else {
            self.note(
                start_of(element),
                format!("the use of \"{}\", which is not in the document: left out", shortened(href)),
            );
            return Ok(());
        };
        if self.uses.contains(&target.id()) || self.uses.len() >= 32 {
            self.note(
                start_of(element),
                format!(
                    "the use of \"{}\" inside itself, or through too many others: left out",
                    shortened(href)
                ),
            );
            return Ok(());
        }
        self.used += 1;
        let given = |name: &str, along: Along| {
            element.attribute(name).and_then(|text| length(text, along, from.viewport))
        };
        self.uses.push(target.id());
        let result = match name(target) {
            "symbol" | "svg" if is_svg(target) => {
                let size = (given("width", Along::X), given("height", Along::Y));
                let inherited = self.inherited(target, from);
                let own = inherited.own.clone();
                let by = self.transform_of(target, from.viewport);
                let put = Put { transform, by, inside: Affine::IDENTITY, viewport: from.viewport };
                if own.shown {
                    self.layer(nodes, target, own, put, |walk, by, nodes| {
                        walk.nested(target, by, &inherited, Some(size), nodes)
                    })
                } else {
                    Ok(())
                }
            }
            _ => self.element(target, from, transform, nodes),
        };
        self.uses.pop();
        result
    }
}

/// The fill and the stroke of a style, each alone and at full opacity.
fn parted(style: &Style) -> (Style, Style) {
    let full = style.clone().opacity(1.0);
    let mut filled = crate::sheet::style();
    if let Some(paint) = style.fill.as_ref() {
        filled = filled.fill(paint);
    }
    (filled, full.unfilled())
}
