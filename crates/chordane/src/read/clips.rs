//! Clips of a document as paths.

use super::attributes::{self, Along, length};
use super::document::Document;
use super::properties::id_of;
use super::shapes::drawn;
use super::tree::Element;
use crate::combine::union_all;
use crate::number::{Cell, Point};
use crate::path::{Affine, FillRule, Path};

/// Clips of clips go through so many at most.
const MOST_LINKS: usize = 8;

/// What a `clip-path` shows, in the coordinates of what is clipped, or what of it was not understood. `bounds` are those of what is clipped,
/// and `find` knows elements by their ids.
///
/// All shapes in a `clipPath` together are shown, each as far as its own clip lets it.
pub(super) fn clip_of(
    document: &Document<'_>,
    target: Option<usize>,
    viewport: Point,
    bounds: Option<Cell>,
    find: &dyn Fn(&str) -> Option<usize>,
    links: usize,
) -> Result<Path, String> {
    let Some((number, clip)) = target.and_then(|number| Some((number, document.element(number)?))) else {
        return Err("a clip-path that is not in the document is left out".to_owned());
    };
    if clip.name != "clipPath" {
        return Err(format!("a <{}> as clip-path is left out: it is no <clipPath>", clip.name));
    }
    if links >= MOST_LINKS {
        return Err(
            "a clip-path that is clipped by itself, or through too many others, is left out".to_owned()
        );
    }
    let clipped = |element: &Element<'_>, path: Path| {
        let Some(text) = document.property(element, "clip-path").filter(|text| text.trim() != "none") else {
            return Ok(path);
        };
        let id = text.trim().strip_prefix("url(").and_then(|rest| rest.strip_suffix(')')).map(id_of);
        let by = clip_of(document, id.and_then(find), viewport, bounds, find, links + 1)?;
        Ok::<_, String>(path.intersection(&by))
    };
    let mut own = transform(document, clip);
    if document.attribute(clip, "clipPathUnits") == Some("objectBoundingBox") {
        let Some(bounds) = bounds else { return Ok(Path::empty()) };
        own *= Affine::from_translation(bounds.min) * Affine::from_scale(bounds.size());
    }
    let mut shown: Vec<Path> = Vec::new();
    for child in document.children(number) {
        let Some(element) = document.element(child) else { continue };
        let hidden = document.property(element, "display") == Some("none")
            || document.inherited(element, "visibility").is_some_and(|text| text != "visible");
        if hidden {
            continue;
        }
        // A shape, or one that is used.
        let (shape_of, by) = if element.name == "use" {
            let href = document.attribute(element, "href").map(id_of).and_then(find);
            let side = |name: &str, along: Along| {
                document
                    .attribute(element, name)
                    .and_then(|text| length(text, along, viewport))
                    .unwrap_or(0.0)
            };
            let step = Affine::from_translation(Point::new(side("x", Along::X), side("y", Along::Y)));
            (href.and_then(|number| document.element(number)), transform(document, element) * step)
        } else {
            (Some(element), Affine::IDENTITY)
        };
        let Some((element, shape)) = shape_of.and_then(|of| Some((of, drawn(document, of, viewport)?)))
        else {
            if ["title", "desc", "metadata"].contains(&&*element.name) {
                continue;
            }
            return Err(format!("a clip-path with a <{}> in it is left out", element.name));
        };
        let rule = document.inherited(element, "clip-rule");
        let path = shape
            .path
            .with_fill_rule(if rule == Some("evenodd") { FillRule::EvenOdd } else { FillRule::Nonzero })
            .transformed(&(own * by * transform(document, element)));
        shown.push(clipped(element, path)?);
    }
    let all = if shown.len() == 1 { shown.swap_remove(0) } else { union_all(&shown) };
    clipped(clip, all)
}

fn transform(document: &Document<'_>, element: &Element<'_>) -> Affine {
    document.attribute(element, "transform").and_then(attributes::transform).unwrap_or_default()
}
