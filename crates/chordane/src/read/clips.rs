//! Clips of a document as paths.

use super::document::Document;
use super::properties::reference;
use super::shapes::drawn;
use super::transforms::{Transform, step_of};
use super::tree::{Element, children, href, id_of, name};
use crate::combine::union_all;
use crate::number::{Cell, Point};
use crate::path::{Affine, FillRule, Path};

/// Clips of clips go through so many at most.
const MAX_CLIP_DEPTH: usize = 8;

/// The context in which clip paths are resolved.
pub(super) struct Clips<'d, 'a> {
    pub(super) document: &'d Document<'a>,
    pub(super) viewport: Point,
    /// The bounds of the clipped element.
    pub(super) bounds: Option<Cell>,
}

impl<'a> Clips<'_, 'a> {
    /// Returns the outline of a `clipPath` in the clipped element's coordinates, or a note if it is not supported.
    ///
    /// The outline is the union of its shapes, each intersected with its own clip path.
    pub(super) fn of(&self, id: &str, links: usize) -> Result<Path, String> {
        let Some(clip) = self.document.by_id(id) else {
            return Err("a clip-path that is not in the document is left out".to_owned());
        };
        if name(clip) != "clipPath" {
            return Err(format!("a <{}> as clip-path is left out: it is no <clipPath>", name(clip)));
        }
        if links >= MAX_CLIP_DEPTH {
            return Err(
                "a clip-path that is clipped by itself, or through too many others, is left out".to_owned()
            );
        }
        let mut own = self.transform(clip, self.bounds);
        if clip.attribute("clipPathUnits") == Some("objectBoundingBox") {
            let Some(bounds) = self.bounds else { return Ok(Path::empty()) };
            own *= Affine::from_translation(bounds.min) * Affine::from_scale(bounds.size());
        }
        let mut shown: Vec<Path> = Vec::new();
        for child in children(clip) {
            if let Some(path) = self.shape(child, links)? {
                shown.push(path.transformed(&own));
            }
        }
        let all = if shown.len() == 1 { shown.swap_remove(0) } else { union_all(&shown) };
        self.clipped(clip, all, links)
    }

    /// Returns the outline of a child of a `clipPath`: a shape, or a `use` of one. `None` for anything else.
    fn shape(&self, child: Element<'a>, links: usize) -> Result<Option<Path>, String> {
        if self.is_hidden(child) {
            return Ok(None);
        }
        if name(child) != "use" {
            return self.outline(child, child, links);
        }
        let Some(used) = href(child).and_then(|href| self.document.by_id(id_of(href))) else {
            return Ok(None);
        };
        let hidden = self.document.property(used, "visibility").is_some_and(|text| text != "visible");
        if hidden || self.document.property(used, "display") == Some("none") {
            return Ok(None);
        }
        let Some(path) = self.outline(used, child, links)? else { return Ok(None) };
        let by = self.transform(child, path.bounds());
        let step = Affine::from_translation(step_of(child, self.viewport));
        Ok(Some(self.clipped(child, path, links)?.transformed(&(by * step))))
    }

    /// Returns the transformed outline of a shape, intersected with its own clip path. It inherits from `from`.
    fn outline(&self, of: Element<'a>, from: Element<'a>, links: usize) -> Result<Option<Path>, String> {
        if name(of) == "text" {
            return Err("a clip-path with a <text> in it is left out".to_owned());
        }
        let Some(shape) = drawn(self.document, of, self.viewport) else { return Ok(None) };
        let rule =
            self.document.property(of, "clip-rule").or_else(|| self.document.inherited(from, "clip-rule"));
        let rule = if rule == Some("evenodd") { FillRule::EvenOdd } else { FillRule::Nonzero };
        let by = self.transform(of, shape.path.bounds());
        let path = self.clipped(of, shape.path.with_fill_rule(rule), links)?;
        Ok(Some(path.transformed(&by)))
    }

    fn is_hidden(&self, element: Element<'a>) -> bool {
        self.document.property(element, "display") == Some("none")
            || self.document.inherited(element, "visibility").is_some_and(|text| text != "visible")
    }

    /// Returns the intersection of a path with the clip path of an element.
    fn clipped(&self, element: Element<'a>, path: Path, links: usize) -> Result<Path, String> {
        let Some(text) = self.document.property(element, "clip-path").filter(|text| *text != "none") else {
            return Ok(path);
        };
        let by = self.of(reference(text).unwrap_or_default(), links + 1)?;
        Ok(path.intersection(&by))
    }

    fn transform(&self, element: Element<'a>, bounds: Option<Cell>) -> Affine {
        Transform::of(self.document, element, self.viewport, |_, _| {}).within(bounds, bounds)
    }
}
