//! Graph paper over a sheet: lines at round steps, their coordinates at the rim, and the axes.

use crate::ground::short;
use crate::number::{Cell, Point};

/// Lines of one direction.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Ruling {
    /// From one labelled line to the next.
    pub(super) step: f64,
    /// Where the lines are.
    pub(super) at: Vec<f64>,
}

/// Lines nearer together than this, in pixels, would crowd their labels.
const MIN_LINE_SPACING_PIXELS: f64 = 56.0;

/// Steps of 1, 2 and 5 times a power of ten: the smallest that leaves so many pixels between lines.
pub(super) fn step(pixels_per_unit: f64) -> f64 {
    let least = MIN_LINE_SPACING_PIXELS / pixels_per_unit;
    let power = 10.0_f64.powf(least.log10().floor());
    let step =
        [1.0, 2.0, 5.0, 10.0].into_iter().map(|k| k * power).find(|step| *step >= least * (1.0 - 1e-9));
    step.filter(|step| step.is_finite() && *step > 0.0).unwrap_or(f64::MAX)
}

/// The lines at whole steps between two coordinates.
pub(super) fn lines(step: f64, low: f64, high: f64) -> Ruling {
    let (first, last) = ((low / step).ceil(), (high / step).floor());
    let count = if (last - first).is_finite() { (last - first + 1.0).clamp(0.0, 500.0) } else { 0.0 };
    let at = (0..count as usize).map(|i| (first + i as f64) * step).collect();
    Ruling { step, at }
}

/// A coordinate as its label: as many decimals as the step needs.
pub(super) fn label(value: f64, step: f64) -> String {
    let decimals = (-step.log10().floor()).clamp(0.0, 9.0) as usize;
    let text = format!("{:.decimals$}", value + 0.0);
    if text.trim_start_matches(['-', '0', '.']).is_empty() { "0".to_owned() } else { text }
}

/// A length or size as its label: three digits or a few more.
pub(super) fn size_label(size: Point) -> String {
    format!("{} x {}", short(size.x, 3), short(size.y, 3))
}

/// Where the origin is, kept on the page: an axis off the page is not drawn.
pub(super) fn axis(page: &Cell) -> (Option<f64>, Option<f64>) {
    let inside = |low: f64, high: f64| (low..=high).contains(&0.0).then_some(0.0);
    (inside(page.min.x, page.max.x), inside(page.min.y, page.max.y))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::number::pt;

    #[test]
    fn steps_are_round_at_any_scale() {
        for (scale, wanted) in
            [(1.0, 100.0), (2.0, 50.0), (1.2, 50.0), (56.0, 1.0), (1000.0, 0.1), (1e-6, 1e8)]
        {
            assert!((step(scale) / wanted - 1.0).abs() < 1e-9, "{scale}: {}", step(scale));
        }
        assert_eq!(lines(50.0, -120.0, 101.0).at, [-100.0, -50.0, 0.0, 50.0, 100.0]);
        assert_eq!(lines(f64::MAX, 0.0, 10.0).at, [0.0]);
        assert_eq!([label(-100.0, 50.0), label(0.5, 0.1), label(-0.0, 0.1)], ["-100", "0.5", "0"]);
        assert_eq!(size_label(pt(80.0, 0.125)), "80 x 0.125");
    }
}
