//! How a view box is fitted into the place it is shown at.

use super::attributes::numbers;
use crate::number::{Cell, Point};
use crate::path::Affine;

/// A view box, if the text is one with a size.
pub(super) fn view_box(text: &str) -> Option<Cell> {
    match numbers(text)?.as_slice() {
        &[x, y, width, height] if width > 0.0 && height > 0.0 => {
            let min = Point::new(x, y);
            Some(Cell { min, max: min + Point::new(width, height) })
        }
        _ => None,
    }
}

/// The transform that fits a view box into a place, as `preserveAspectRatio` says.
pub(super) fn fitted(view: &Cell, place: &Cell, how: Option<&str>) -> Affine {
    let scale = place.size() / view.size();
    let mut words = how.unwrap_or("xMidYMid").split_whitespace().filter(|word| *word != "defer");
    let align = words.next().unwrap_or("xMidYMid");
    if align == "none" {
        return Affine::from_translation(place.min)
            * Affine::from_scale(scale)
            * Affine::from_translation(-view.min);
    }
    let even = if words.next() == Some("slice") { scale.max_element() } else { scale.min_element() };
    let share = |low: &str, high: &str| {
        if align.contains(low) {
            0.0
        } else if align.contains(high) {
            1.0
        } else {
            0.5
        }
    };
    let free = place.size() - view.size() * even;
    let corner = place.min + free * Point::new(share("xMin", "xMax"), share("YMin", "YMax"));
    Affine::from_translation(corner)
        * Affine::from_scale(Point::splat(even))
        * Affine::from_translation(-view.min)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::number::pt;

    #[test]
    fn every_way_to_fit() {
        let view = view_box("10 20 100 50").unwrap();
        let place = Cell { min: pt(0.0, 0.0), max: pt(200.0, 200.0) };
        let corner = |how: &str| fitted(&view, &place, Some(how)).transform_point2(pt(10.0, 20.0));
        assert_eq!(corner("none"), pt(0.0, 0.0));
        assert_eq!(fitted(&view, &place, Some("none")).transform_point2(view.max), pt(200.0, 200.0));
        assert_eq!(corner("xMidYMid"), pt(0.0, 50.0));
        assert_eq!(corner("xMinYMin meet"), pt(0.0, 0.0));
        assert_eq!(corner("xMaxYMax"), pt(0.0, 100.0));
        assert_eq!(corner("xMidYMid slice"), pt(-100.0, 0.0));
        assert_eq!(corner("xMaxYMid slice"), pt(-200.0, 0.0));
        assert_eq!(fitted(&view, &place, None), fitted(&view, &place, Some("xMidYMid meet")));
        assert_eq!(view_box("0 0 0 5"), None);
        assert_eq!(view_box("0 0 5"), None);
    }
}
