//! Clips of a document as paths.

use super::attributes;
use super::document::{Document, Element};
use super::shapes::drawn;
use crate::combine::union_all;
use crate::number::Point;
use crate::path::{Affine, FillRule, Path};

/// What a `clip-path` shows, in the coordinates of what is clipped, and what of it was not understood.
///
/// All shapes in a `clipPath` together are shown. `none`, and a reference to nothing, clip nothing.
pub(super) fn clip_of(
    document: &Document<'_>,
    target: Option<usize>,
    viewport: Point,
) -> Result<Path, String> {
    let unit = |element: &Element<'_>| document.attribute(element, "clipPathUnits").map(str::to_owned);
    let Some((number, clip)) = target.and_then(|number| Some((number, document.element(number)?))) else {
        return Err("a clip-path that is not in the document is left out".to_owned());
    };
    if clip.name != "clipPath" {
        return Err(format!("a <{}> as clip-path is left out: it is no <clipPath>", clip.name));
    }
    if unit(clip).is_some_and(|unit| unit != "userSpaceOnUse") {
        return Err("a clip-path in shares of the clipped shape's box is left out".to_owned());
    }
    if document.attribute(clip, "clip-path").is_some() {
        return Err("a clip-path that is clipped itself is left out".to_owned());
    }
    let own = transform(document, clip);
    let mut shown: Vec<Path> = Vec::new();
    for child in document.children(number) {
        let Some(element) = document.element(child) else { continue };
        let Some(shape) = drawn(document, element, viewport) else {
            if ["title", "desc", "metadata"].contains(&&*element.name) {
                continue;
            }
            return Err(format!("a clip-path with a <{}> in it is left out", element.name));
        };
        let rule = [element, clip].into_iter().find_map(|element| clip_rule(document, element));
        let path = shape
            .path
            .with_fill_rule(if rule.as_deref() == Some("evenodd") {
                FillRule::EvenOdd
            } else {
                FillRule::Nonzero
            })
            .transformed(&(own * transform(document, element)));
        shown.push(path);
    }
    Ok(if shown.len() == 1 { shown.swap_remove(0) } else { union_all(&shown) })
}

fn transform(document: &Document<'_>, element: &Element<'_>) -> Affine {
    document.attribute(element, "transform").and_then(attributes::transform).unwrap_or_default()
}

/// The clip rule that stands on an element.
fn clip_rule(document: &Document<'_>, element: &Element<'_>) -> Option<String> {
    let style = document.attribute(element, "style").unwrap_or_default();
    let in_style = style.split(';').filter_map(|part| part.split_once(':'));
    let mut of_style = in_style.filter(|(name, _)| name.trim() == "clip-rule").map(|(_, value)| value.trim());
    of_style.next_back().or_else(|| document.attribute(element, "clip-rule")).map(str::to_owned)
}
