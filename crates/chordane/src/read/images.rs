//! Pictures of pixels inside a document.

use super::attributes::{Along, length};
use super::tree::{Element, href, start_of};
use super::viewport::fitted;
use super::walk::Walk;
use crate::number::{Cell, Point};
use crate::path::Path;
use crate::shape::rectangle;
use crate::sheet::{Item, Picture};

impl<'a> Walk<'a> {
    /// An embedded picture as an item. One that lies elsewhere is not fetched, which is noted.
    pub(super) fn image(&mut self, element: Element<'a>, viewport: Point) -> Option<Item> {
        let known =
            self.pictures.entry(element.id()).or_insert_with(|| embedded(href(element).unwrap_or_default()));
        let picture = match known.clone() {
            Ok(picture) => picture,
            Err(told) => {
                self.note(start_of(element), told);
                return None;
            }
        };
        let own = Point::new(f64::from(picture.width()), f64::from(picture.height()));
        let side = |name: &str, along: Along| {
            let text = self.document.property(element, name).filter(|text| *text != "auto")?;
            length(text, along, viewport)
        };
        let corner = Point::new(side("x", Along::X).unwrap_or(0.0), side("y", Along::Y).unwrap_or(0.0));
        let size = match (side("width", Along::X), side("height", Along::Y)) {
            (Some(x), Some(y)) => Point::new(x, y),
            (Some(x), None) => Point::new(x, x * own.y / own.x),
            (None, Some(y)) => Point::new(y * own.x / own.y, y),
            (None, None) => own,
        };
        if size.min_element() <= 0.0 {
            return None;
        }
        let place = Cell { min: corner, max: corner + size };
        let how = element.attribute("preserveAspectRatio");
        let view = Cell { min: Point::ZERO, max: own };
        let to_place = fitted(&view, &place, how);
        let area =
            Cell { min: to_place.transform_point2(view.min), max: to_place.transform_point2(view.max) };
        // What reaches over its place is cut off.
        let shown = Cell { min: area.min.max(place.min), max: area.max.min(place.max) };
        let pixelated = self.document.inherited(element, "image-rendering");
        let sampling = match pixelated {
            Some("pixelated" | "crisp-edges" | "optimizeSpeed") => "nearest",
            _ => "smooth",
        };
        let path: Path = rectangle(shown.min, shown.size().x, shown.size().y);
        Some(path.fill(picture.sampled(sampling).fitted("stretch").over(area)))
    }
}

/// The picture in a data URL.
#[cfg(feature = "png")]
fn embedded(href: &str) -> Result<Picture, String> {
    use base64::Engine;
    use base64::alphabet::STANDARD;
    use base64::engine::{DecodePaddingMode, GeneralPurpose, GeneralPurposeConfig};

    let Some(rest) = href.trim().strip_prefix("data:") else {
        let name = super::error::shortened(href);
        return Err(format!(
            "the image \"{name}\" is not in the document itself and is not fetched: left out"
        ));
    };
    let (media, data) = rest.split_once(',').unwrap_or(("", ""));
    let bytes: Vec<u8> = if media.trim_end().ends_with(";base64") {
        let plain: String = data.chars().filter(|c| !c.is_whitespace()).collect();
        let config = GeneralPurposeConfig::new().with_decode_padding_mode(DecodePaddingMode::Indifferent);
        GeneralPurpose::new(&STANDARD, config)
            .decode(plain)
            .map_err(|error| format!("an image in the document is damaged: {error}: left out"))?
    } else {
        return Err("an image in the document that is not in base64 is left out".to_owned());
    };
    Picture::read(&bytes).map_err(|error| format!("an image in the document is left out: {error}"))
}

#[cfg(not(feature = "png"))]
fn embedded(_: &str) -> Result<Picture, String> {
    Err("images need the feature `png` of the library: left out".to_owned())
}
