//! Items as polygons in pixels, with the inks that they are filled with.

use std::borrow::Cow;

use super::ink::{Ink, Stores, Surface};
use super::reach::seen;
use super::shapes::{Polygons, Shape, within_reach};
use crate::ground::Fault;
use crate::number::Point;
use crate::path::{Affine, Contour, FillRule, Path, flatten_segment};
use crate::reshape::{FlatPath, LineStyle};
use crate::scene::{Placed, largest_scale};
use crate::sheet::{Colour, Paint, Pattern};

/// What an item without fill and stroke is drawn with.
pub(crate) const DRAFT_COLOUR: Colour = Colour { red: 0.42, green: 0.45, blue: 0.5, alpha: 1.0 };

/// The size of the picture, how the sheet lies in it, and how far chords may stray, in pixels.
#[derive(Clone, Copy, Debug)]
pub(super) struct Target {
    pub(super) width: usize,
    pub(super) height: usize,
    /// From the scene's coordinates, which are pixels already, to those of this picture.
    pub(super) shift: Point,
    /// From the scene's coordinates back to those of what is added to the sheet.
    pub(super) to_sheet: Affine,
    pub(super) tolerance: f64,
    /// Whether pixels are painted whole or not at all.
    pub(super) whole: bool,
}

impl Target {
    pub(super) fn size(&self) -> (usize, usize) {
        (self.width, self.height)
    }

    pub(super) fn placed(&self, transform: &Affine) -> Affine {
        Affine::from_translation(self.shift) * *transform
    }
}

/// What was made of some items.
#[derive(Default)]
pub(super) struct Drawn {
    pub(super) polygons: Polygons,
    stores: Stores,
    /// Used again and again.
    flat: FlatPath,
}

/// Makes the ink of a pattern that a map puts on pixels.
pub(super) type Tiled<'t> = &'t dyn Fn(&Pattern, &Affine, f64, &mut Stores) -> Result<Ink, Fault>;

impl Drawn {
    /// The polygons of an item's fill and stroke.
    pub(super) fn item(
        &mut self,
        placed: &Placed<'_>,
        target: &Target,
        tiled: Tiled<'_>,
        mut add: impl FnMut(Shape),
    ) -> Result<(), Fault> {
        let (item, to_pixels) = (placed.item, &target.placed(&placed.transform));
        let style = item.style();
        reachable(item.path(), to_pixels)?;
        let opacity = if item.fades_as_one() { 1.0 } else { style.opacity };
        let size = Point::new(target.width as f64, target.height as f64);
        // What one colour covers does not depend on where it lies.
        let shaded = |paint: &Option<Paint>| paint.as_ref().is_some_and(|paint| paint.colour().is_none());
        let bounds = (shaded(&style.fill) || shaded(&style.stroke)).then(|| item.path().bounds()).flatten();
        let surface = Surface {
            path: item.path(),
            bounds,
            placed: target.to_sheet * placed.transform,
            to_pixels: *to_pixels,
            half_width: None,
            size: target.size(),
        };
        if let Some(paint) = &style.fill {
            let ink = self.ink(paint, opacity, &surface, tiled)?;
            let path = seen(item.path(), to_pixels, size, 2.0);
            self.flat.clear();
            for contour in path.contours() {
                push_transformed(contour, to_pixels, target.tolerance, &mut self.flat);
            }
            self.push(item.path().fill_rule(), ink, target)?.into_iter().for_each(&mut add);
        }
        if style.paints_nothing() {
            self.flat.clear();
            LineStyle::new(1.0).outline_into(
                &item.path().transformed(to_pixels),
                target.tolerance,
                &mut self.flat,
            );
            self.push(FillRule::Nonzero, Ink::solid(DRAFT_COLOUR, 1.0), target)?
                .into_iter()
                .for_each(&mut add);
        } else if let Some(paint) = &style.stroke {
            let outline = &style.line;
            let scale = largest_scale(to_pixels);
            let surface = Surface { half_width: Some(0.5 * outline.width * scale), ..surface };
            let ink = self.ink(paint, opacity, &surface, tiled)?;
            let reach = 0.5 * outline.width * outline.mitre_limit.max(2.0) * scale + 2.0;
            // Dashes go by the length, which must be that of the path as it is.
            let path = if outline.dash.is_empty() && reach.is_finite() {
                seen(item.path(), to_pixels, size, reach)
            } else {
                Cow::Borrowed(item.path())
            };
            self.flat.clear();
            stroke(&path, outline, to_pixels, target.tolerance, &mut self.flat);
            self.push(FillRule::Nonzero, ink, target)?.into_iter().for_each(&mut add);
        }
        Ok(())
    }

    /// The area of a clip, opaque.
    pub(super) fn clip(
        &mut self,
        path: &Path,
        to_pixels: &Affine,
        target: &Target,
    ) -> Result<Option<Shape>, Fault> {
        reachable(path, to_pixels)?;
        self.flat.clear();
        for contour in path.contours() {
            push_transformed(contour, &target.placed(to_pixels), target.tolerance, &mut self.flat);
        }
        self.push(path.fill_rule(), Ink::solid(DRAFT_COLOUR, 1.0), target)
    }

    fn ink(&mut self, paint: &Paint, opacity: f64, on: &Surface<'_>, tiled: Tiled<'_>) -> Result<Ink, Fault> {
        match paint {
            Paint::Pattern(pattern) => {
                tiled(pattern, &(on.to_pixels * pattern.transform), opacity, &mut self.stores)
            }
            _ => Ok(Ink::new(paint, opacity, on, &mut self.stores)),
        }
    }

    /// What was flattened, to be filled. Nothing where it cannot be seen.
    fn push(&mut self, rule: FillRule, ink: Ink, target: &Target) -> Result<Option<Shape>, Fault> {
        self.polygons.push(&self.flat, rule, ink, target.size())
    }
}

/// Refuses a path that reaches too far out, before the work of flattening it.
fn reachable(path: &Path, to_pixels: &Affine) -> Result<(), Fault> {
    let Some(bounds) = path.control_bounds() else { return Ok(()) };
    let far = bounds.corners().map(|corner| to_pixels.transform_point2(corner).abs().max_element());
    within_reach(far.into_iter().fold(0.0, f64::max))
}

/// Adds a contour, transformed and then flattened.
fn push_transformed(contour: &Contour, by: &Affine, tolerance: f64, flat: &mut FlatPath) {
    flat.points.push(by.transform_point2(contour.start()));
    for segment in contour.segments() {
        flatten_segment(&segment.transformed(by), tolerance, |p| flat.points.push(p));
    }
    flat.end_polygon();
}

/// The area of a stroke in pixels. The stroke is built before the transform, which may squash it.
fn stroke(path: &Path, outline: &LineStyle, to_pixels: &Affine, tolerance: f64, flat: &mut FlatPath) {
    let scale = largest_scale(to_pixels);
    if scale > 0.0 {
        outline.outline_into(path, tolerance / scale, flat);
        flat.points.iter_mut().for_each(|p| *p = to_pixels.transform_point2(*p));
    }
}
