//! Transforms of elements: the `transform` attribute and the CSS transform properties.

use super::attributes::{Along, length, numbers, with_unit};
use super::document::Document;
use super::tree::Element;
use crate::number::{Angle, Cell, Point, deg, rad, turns};
use crate::path::{Affine, by};

/// The reference box of a transform, for its origin and for percentages.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
enum Frame {
    #[default]
    Viewport,
    /// The bounding box of the element.
    Fill,
    /// The bounding box including strokes.
    Stroke,
}

#[derive(Clone, Debug)]
enum Step {
    /// A translation to the right and down, as CSS lengths.
    Move(String, String),
    Other(Affine),
}

/// The transform of an element, which may depend on its bounding box.
#[derive(Clone, Debug, Default)]
pub(super) struct Transform {
    /// The last step is applied first.
    steps: Vec<Step>,
    /// The origin as CSS lengths from the top left corner of the reference box.
    origin: Option<(String, String)>,
    frame: Frame,
    viewport: Point,
}

impl Transform {
    /// Returns the transform of a gradient or pattern: that of the first element in the chain that has one. `attribute` is the attribute's name.
    pub(super) fn of_server<'a>(
        document: &Document<'a>,
        chain: &[Element<'a>],
        attribute: &str,
        viewport: Point,
    ) -> Affine {
        let said = chain.iter().find_map(|element| {
            let styled = document.styled(*element).rev().find(|(key, _)| *key == "transform");
            let styled = styled.and_then(|(_, value)| listed(value, function));
            styled.or_else(|| listed(element.attribute(attribute)?, plain_function))
        });
        Self { steps: said.unwrap_or_default(), viewport, ..Self::default() }.within(None, None)
    }

    /// Returns the transform of an element. Calls `bad` with the name and value of each property that cannot be parsed.
    pub(super) fn of(
        document: &Document<'_>,
        element: Element<'_>,
        viewport: Point,
        mut bad: impl FnMut(&str, &str),
    ) -> Self {
        let mut made = Self { viewport, ..Self::default() };
        let styled = |name: &str| document.styled(element).rev().find(|(key, _)| *key == name);
        for name in ["translate", "rotate", "scale"] {
            let Some((_, value)) = styled(name) else { continue };
            let values: Vec<&str> = value.split_ascii_whitespace().collect();
            match listed(&format!("{name}({})", values.join(",")), function) {
                _ if value == "none" => {}
                Some(steps) => made.steps.extend(steps),
                None => bad(name, value),
            }
        }
        let from_style = styled("transform").and_then(|(name, value)| {
            let steps = listed(value, function);
            if steps.is_none() {
                bad(name, value);
            }
            steps
        });
        let from_attribute = || {
            let value = element.attribute("transform")?;
            let steps = listed(value, plain_function);
            if steps.is_none() {
                bad("transform", value);
            }
            steps
        };
        made.steps.extend(from_style.or_else(from_attribute).unwrap_or_default());
        if made.steps.is_empty() {
            return made;
        }
        if let Some(value) = document.own(element, "transform-origin") {
            made.origin = origin(value);
            if made.origin.is_none() {
                bad("transform-origin", value);
            }
        }
        made.frame = match document.own(element, "transform-box") {
            Some("fill-box" | "content-box") => Frame::Fill,
            Some("stroke-box" | "border-box") => Frame::Stroke,
            _ => Frame::Viewport,
        };
        made
    }

    /// Makes the centre of the reference box the default origin.
    pub(super) fn about_the_middle(mut self) -> Self {
        self.origin.get_or_insert_with(|| ("50%".to_owned(), "50%".to_owned()));
        self
    }

    /// Returns `true` if it depends on the element's bounding box.
    pub(super) fn is_bound(&self) -> bool {
        self.frame != Frame::Viewport
    }

    /// Returns the matrix for an element with these bounding boxes, without and with strokes.
    pub(super) fn within(&self, bounds: Option<Cell>, painted: Option<Cell>) -> Affine {
        let frame = match self.frame {
            Frame::Viewport => Some(Cell { min: Point::ZERO, max: self.viewport }),
            Frame::Fill => bounds,
            Frame::Stroke => painted,
        };
        let frame = frame.unwrap_or(Cell { min: Point::ZERO, max: Point::ZERO });
        let measured = |x: &str, y: &str| {
            let along = |text: &str, along: Along| length(text, along, frame.size()).unwrap_or(0.0);
            Point::new(along(x, Along::X), along(y, Along::Y))
        };
        let whole = self.steps.iter().fold(Affine::IDENTITY, |whole, step| match step {
            Step::Move(x, y) => whole * Affine::from_translation(measured(x, y)),
            Step::Other(other) => whole * *other,
        });
        let origin = self.origin.as_ref().map_or(Point::ZERO, |(x, y)| measured(x, y)) + frame.min;
        if origin == Point::ZERO { whole } else { by::about(origin, whole) }
    }
}

/// The translation of a `use` element, from its `x` and `y`.
pub(super) fn step_of(element: Element<'_>, viewport: Point) -> Point {
    let side = |name: &str, along: Along| {
        element.attribute(name).and_then(|text| length(text, along, viewport)).unwrap_or(0.0)
    };
    Point::new(side("x", Along::X), side("y", Along::Y))
}

/// Parses a list of transform functions; `None` if one cannot be parsed or the result is not finite.
fn listed(text: &str, one: fn(&str, &str) -> Option<Step>) -> Option<Vec<Step>> {
    let mut rest = text.trim();
    let mut steps = Vec::new();
    if rest == "none" {
        return Some(steps);
    }
    while !rest.is_empty() {
        let (name, behind) = rest.split_once('(')?;
        let (values, behind) = behind.split_once(')')?;
        steps.push(one(name.trim(), values)?);
        rest = behind.trim_start();
        rest = rest.strip_prefix(',').unwrap_or(rest).trim_start();
    }
    let whole = steps.iter().fold(Affine::IDENTITY, |whole, step| match step {
        Step::Other(other) => whole * *other,
        Step::Move(..) => whole,
    });
    whole.is_finite().then_some(steps)
}

/// Parses a function of the `transform` attribute, whose arguments are plain numbers.
fn plain_function(name: &str, values: &str) -> Option<Step> {
    let flat = Angle::ZERO;
    Some(Step::Other(match (name, numbers(values)?.as_slice()) {
        ("matrix", &[a, b, c, d, e, f]) => Affine::from_cols_array(&[a, b, c, d, e, f]),
        ("translate", &[x]) => Affine::from_translation(Point::new(x, 0.0)),
        ("translate", &[x, y]) => Affine::from_translation(Point::new(x, y)),
        ("scale", &[k]) => Affine::from_scale(Point::splat(k)),
        ("scale", &[x, y]) => Affine::from_scale(Point::new(x, y)),
        ("rotate", &[angle]) => by::rotation(deg(angle)),
        ("rotate", &[angle, x, y]) => by::about(Point::new(x, y), by::rotation(deg(angle))),
        ("skewX", &[angle]) => by::shear(deg(angle), flat),
        ("skewY", &[angle]) => by::shear(flat, deg(angle)),
        _ => return None,
    }))
}

/// Parses a CSS transform function, whose arguments have units.
fn function(name: &str, values: &str) -> Option<Step> {
    let values: Vec<&str> = values.split(',').map(str::trim).collect();
    let move_by = |x: &str, y: &str| {
        let good = [x, y].into_iter().all(|text| {
            let unit_is_said = with_unit(text).is_some_and(|(value, unit)| value == 0.0 || !unit.is_empty());
            unit_is_said && length(text, Along::X, Point::ONE).is_some()
        });
        good.then(|| Step::Move(x.to_owned(), y.to_owned()))
    };
    let scale = |x: &str, y: &str| {
        let scale = Point::new(factor(x)?, factor(y)?);
        Some(Step::Other(Affine::from_scale(scale)))
    };
    let shear = |x: &str, y: &str| Some(Step::Other(by::shear(angle(x)?, angle(y)?)));
    match (&*name.to_ascii_lowercase(), values.as_slice()) {
        ("translate" | "translatex", &[x]) => move_by(x, "0"),
        ("translate", &[x, y]) => move_by(x, y),
        ("translatey", &[y]) => move_by("0", y),
        ("scale", &[k]) => scale(k, k),
        ("scale", &[x, y]) => scale(x, y),
        ("scalex", &[x]) => scale(x, "1"),
        ("scaley", &[y]) => scale("1", y),
        ("rotate" | "rotatez", &[turn]) => Some(Step::Other(by::rotation(angle(turn)?))),
        ("skew" | "skewx", &[x]) => shear(x, "0"),
        ("skew", &[x, y]) => shear(x, y),
        ("skewy", &[y]) => shear("0", y),
        ("matrix", values) => plain_function("matrix", &values.join(" ")),
        _ => None,
    }
}

fn factor(text: &str) -> Option<f64> {
    match with_unit(text)? {
        (value, "") => Some(value),
        (value, "%") => Some(value / 100.0),
        _ => None,
    }
}

fn angle(text: &str) -> Option<Angle> {
    let (value, unit) = with_unit(text)?;
    match unit {
        "deg" => Some(deg(value)),
        "rad" => Some(rad(value)),
        "grad" => Some(turns(value / 400.0)),
        "turn" => Some(turns(value)),
        "" if value == 0.0 => Some(Angle::ZERO),
        _ => None,
    }
}

/// Parses a `transform-origin` into two lengths.
fn origin(text: &str) -> Option<(String, String)> {
    let words: Vec<&str> = text.split_ascii_whitespace().collect();
    let (x, y) = match words.as_slice() {
        &[y @ ("top" | "bottom")] => ("center", y),
        &[x] => (x, "center"),
        &[y @ ("top" | "bottom"), x] | &[y, x @ ("left" | "right")] => (x, y),
        // The third is the z offset.
        &[x, y] | &[x, y, _] => (x, y),
        _ => return None,
    };
    let side = |word: &str, low: &str, high: &str| {
        let text = match word {
            "center" => "50%",
            word if word == low => "0%",
            word if word == high => "100%",
            word => word,
        };
        length(text, Along::X, Point::ONE).map(|_| text.to_owned())
    };
    Some((side(x, "left", "right")?, side(y, "top", "bottom")?))
}

#[cfg(test)]
mod tests {
    use super::*;

    fn at(steps: Option<Vec<Step>>, origin: Option<(String, String)>, frame: Frame) -> Point {
        let viewport = Point::new(40.0, 30.0);
        let made = Transform { steps: steps.unwrap(), origin, frame, viewport };
        let cell = |x: f64, size: f64| Some(Cell { min: Point::splat(x), max: Point::splat(x + size) });
        made.within(cell(10.0, 2.0), cell(8.0, 6.0)).transform_point2(Point::new(1.0, 0.0))
    }

    fn transform(text: &str) -> Option<Affine> {
        let steps = listed(text, plain_function)?;
        Some(Transform { steps, ..Transform::default() }.within(None, None))
    }

    #[test]
    fn transforms_are_done_from_the_last_to_the_first() {
        let at = |text: &str| transform(text).unwrap().transform_point2(Point::new(1.0, 0.0));
        assert_eq!(at("translate(10 5) scale(2)"), Point::new(12.0, 5.0));
        assert_eq!(at("scale(2),translate(10)"), Point::new(22.0, 0.0));
        assert_eq!(at("rotate(90 1 1)"), Point::new(2.0, 1.0));
        assert_eq!(at("matrix(0 1 -1 0 7 8)"), Point::new(7.0, 9.0));
        assert_eq!(at(""), Point::new(1.0, 0.0));
        for bad in ["scale(", "turn(3)", "scale()", "matrix(1 2)", "scale(1e308) scale(1e308)", "1"] {
            assert_eq!(transform(bad), None, "{bad}");
        }
    }

    #[test]
    fn functions_of_style_sheets_have_units() {
        for (text, x, y) in [
            ("translate(26px, 10px) rotate(90deg)", 26.0, 11.0),
            ("translate(50%)", 21.0, 0.0),
            ("translateX(1in) translateY(10%)", 97.0, 3.0),
            ("scale(50%, 2) rotate(.25turn)", 0.0, 2.0),
            ("scaleX(3) scaleY(4) rotate(0)", 3.0, 0.0),
            ("skewY(45deg)", 1.0, 1.0),
            ("skew(0, 50grad)", 1.0, 1.0),
            ("matrix(0, 1, -1, 0, 7, 8)", 7.0, 9.0),
        ] {
            let point = at(listed(text, function), None, Frame::Viewport);
            assert!(point.distance(Point::new(x, y)) < 1e-12, "{text}: {point}");
        }
        for bad in ["translate(26)", "rotate(15)", "scale(2px)", "rotate3d(1,1,1,4deg)", "skew()"] {
            assert!(listed(bad, function).is_none(), "{bad}");
        }
    }

    #[test]
    fn origins_are_measured_in_their_frame() {
        let turned = |text: &str, frame: Frame| at(listed("rotate(180deg)", function), origin(text), frame);
        for (text, frame, x, y) in [
            ("center", Frame::Viewport, 39.0, 30.0),
            ("0 0", Frame::Fill, 19.0, 20.0),
            ("50% 50%", Frame::Fill, 21.0, 22.0),
            ("right bottom", Frame::Fill, 23.0, 24.0),
            ("top left", Frame::Stroke, 15.0, 16.0),
            ("bottom", Frame::Stroke, 21.0, 28.0),
            ("3px 25% 4px", Frame::Viewport, 5.0, 15.0),
        ] {
            let point = turned(text, frame);
            assert!(point.distance(Point::new(x, y)) < 1e-12, "{text}: {point}");
        }
        assert_eq!((origin("up"), origin(""), origin("1 2 3 4")), (None, None, None));
    }
}
