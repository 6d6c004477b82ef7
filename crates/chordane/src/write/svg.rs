//! SVG text.
//!
//! Small and plain: path data rounded to what the sheet's size can show, attributes only where they differ from
//! their default, a `viewBox` that keeps the sheet's own coordinates, and the true size where the unit has one.

use super::element::{Recording, Sink};
use super::svg_items::FILL;
use super::svg_paint::{Definitions, whole};
use super::svg_text::{Ids, escaped_text, plain};
use super::svg_writer::Writer;
use crate::ground::{Fault, FaultSlot, limited};
use crate::number::Point;
use crate::scene::Scene;
use crate::shape::rectangle;
use crate::sheet::{Paint, Sheet, WriteOptions};

impl Sheet {
    /// The sheet as SVG text.
    ///
    /// # Errors
    ///
    /// The first fault of what is drawn.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let sheet = sheet(40.0, 30.0).add(rectangle((0.0, 0.0), 20.0, 10.0).fill("teal"));
    /// assert_eq!(
    ///     sheet.svg()?,
    ///     "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"40\" height=\"30\" viewBox=\"0 0 40 30\">\n\
    ///      <path fill=\"#008080\" d=\"M0 0H20V10H0Z\"/>\n</svg>\n"
    /// );
    /// # Ok::<(), Fault>(())
    /// ```
    pub fn svg(&self) -> Result<String, Fault> {
        self.svg_with(&WriteOptions::default())
    }

    /// The sheet as SVG text; see [`WriteOptions`].
    ///
    /// # Errors
    ///
    /// The first fault of what is drawn.
    pub fn svg_with(&self, options: &WriteOptions) -> Result<String, Fault> {
        if let Some((width, height)) = options.size {
            let mut fault = FaultSlot::default();
            fault.positive("svg", "width in pixels", width.into());
            fault.positive("svg", "height in pixels", height.into());
            fault.sound()?;
        }
        let written = self.document(options, STATIC_PRECISION, Sink::Text(String::new()))?;
        let Sink::Text(text) = written.out else { return Ok(String::new()) };
        Ok(text)
    }

    /// The sheet as a frame among others: its tags, in which nothing is defined for two items, and the decimals of its lengths.
    pub(super) fn svg_tags(&self, options: &WriteOptions) -> Result<(Recording, usize), Fault> {
        let writer = self.document(options, ANIMATED_PRECISION, Sink::Tags(Recording::default()))?;
        let Sink::Tags(recording) = writer.out else { return Ok((Recording::default(), 0)) };
        Ok((recording, writer.decimals))
    }

    fn document(&self, options: &WriteOptions, finest: f64, out: Sink) -> Result<Writer, Fault> {
        limited("svg", || self.written_to(out, options, finest))?
    }

    fn written_to(&self, out: Sink, options: &WriteOptions, finest: f64) -> Result<Writer, Fault> {
        let scene = self.scene()?;
        let finest = self.size.max_element() * finest;
        let decimals = options.decimals.unwrap_or_else(|| (-finest.log10()).ceil().clamp(0.0, 12.0) as usize);
        let mut writer = Writer {
            out,
            decimals,
            ids: Ids::of(&scene),
            definitions: Definitions::default(),
            blends: scene.blends(),
            fault: FaultSlot::default(),
        };
        writer.document(self, &scene, options);
        writer.fault.sound()?;
        Ok(writer)
    }
}

/// Coordinates have as many decimals as show this share of the sheet's longer side: a millionth in a picture that may be enlarged, less where
/// every number stands there for many frames.
const STATIC_PRECISION: f64 = 1e-6;
const ANIMATED_PRECISION: f64 = 1e-5;

impl Writer {
    fn document(&mut self, sheet: &Sheet, scene: &Scene<'_>, options: &WriteOptions) {
        let shown = options.size;
        let suffix = match sheet.unit.suffix() {
            "px" => "",
            other => other,
        };
        let (size, corner) = (sheet.size, sheet.corner());
        let [x, y, width, height] = [corner.x, corner.y, size.x, size.y].map(plain);
        let (wide, high) = match shown {
            Some((wide, high)) => (wide.to_string(), high.to_string()),
            None => (format!("{width}{suffix}"), format!("{height}{suffix}")),
        };
        self.out.begin("svg");
        self.out.attribute("xmlns", "http://www.w3.org/2000/svg");
        self.out.attribute("width", &wide);
        self.out.attribute("height", &high);
        self.out.attribute("viewBox", &[x, y, width, height].join(" "));
        if !options.antialias {
            self.out.attribute("shape-rendering", "crispEdges");
        }
        self.open();
        for (name, text) in
            [("title", &sheet.title), ("desc", &sheet.description), ("metadata", &sheet.metadata)]
        {
            if let Some(text) = text {
                self.out.text_element(name, &escaped_text(text));
            }
        }
        if self.blends {
            // So that nothing is blended with the page that shows the picture.
            self.out.begin("g");
            self.out.attribute("style", "isolation:isolate");
            self.open();
        }
        if let Some(ground) = &sheet.ground {
            self.ground(sheet, ground, shown);
        }
        if sheet.y_up {
            self.out.begin("g");
            self.transform(&sheet.upright());
            self.open();
        }
        self.commands(scene, scene.all());
        if sheet.y_up {
            self.close("g");
        }
        if self.blends {
            self.close("g");
        }
        self.close("svg");
    }

    fn ground(&mut self, sheet: &Sheet, ground: &Paint, shown: Option<(u32, u32)>) {
        // Shown in another shape, the sheet lies in the middle and its ground reaches over the margins.
        let (size, corner) = (sheet.size, sheet.corner());
        let margin = shown.map_or(Point::ZERO, |(wide, high)| {
            let shown = Point::new(f64::from(wide), f64::from(high));
            (shown / (shown / size).min_element() - size) * 0.5
        });
        let (corner, size) = (corner - margin, size + margin * 2.0);
        let [x, y, width, height] = [corner.x, corner.y, size.x, size.y].map(plain);
        let cell = sheet.cell();
        let frame = rectangle(cell.min, cell.size().x, cell.size().y);
        let painted = self.defined(ground, &whole(cell, margin, sheet.upright()), (&frame, None));
        self.out.begin("rect");
        self.out.attribute_unless("x", &x, "0");
        self.out.attribute_unless("y", &y, "0");
        self.out.attribute("width", &width);
        self.out.attribute("height", &height);
        self.paint(FILL, Some(&painted), 1.0);
        self.out.alone();
        self.out.line();
    }
}
