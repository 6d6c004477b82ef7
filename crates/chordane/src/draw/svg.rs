//! SVG text.
//!
//! Small and plain: path data rounded to what the sheet's size can show, attributes only where they differ from
//! their default, a `viewBox` that keeps the sheet's own coordinates, and the true size where the unit has one.

use std::fmt::Write;

use super::plan::DRAFT_COLOUR;
use crate::fault::Fault;
use crate::number::Point;
use crate::path::{Affine, FillRule, Path};
use crate::reshape::{Cap, Join};
use crate::sheet::{Colour, Group, Item, Node, Sheet, Style};

/// How SVG text is written.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct SvgOptions {
    decimals: Option<usize>,
    size: Option<(u32, u32)>,
}

impl SvgOptions {
    /// The number of decimals of coordinates, at most 12. At first, as many as show a millionth of the sheet's
    /// longer side.
    #[must_use]
    pub fn decimals(mut self, decimals: usize) -> Self {
        self.decimals = Some(decimals);
        self
    }

    /// The size at which the picture is shown, in pixels; the sheet is fitted into it evenly. At first the size of
    /// the sheet, in its own unit.
    #[must_use]
    pub fn size(mut self, width: u32, height: u32) -> Self {
        self.size = Some((width, height));
        self
    }
}

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
        self.svg_with(&SvgOptions::default())
    }

    /// The sheet as SVG text; see [`SvgOptions`].
    ///
    /// # Errors
    ///
    /// The first fault of what is drawn.
    pub fn svg_with(&self, options: &SvgOptions) -> Result<String, Fault> {
        self.sound()?;
        let finest = self.size.max_element() * 1e-6;
        let decimals = options.decimals.unwrap_or_else(|| (-finest.log10()).ceil().clamp(0.0, 12.0) as usize);
        let mut writer = Writer { out: String::new(), decimals, clips: 0 };
        writer.document(self, options.size);
        Ok(writer.out)
    }
}

struct Writer {
    out: String,
    decimals: usize,
    /// How many clips there are so far.
    clips: usize,
}

impl Writer {
    fn document(&mut self, sheet: &Sheet, shown: Option<(u32, u32)>) {
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
        let _ = writeln!(
            self.out,
            "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{wide}\" height=\"{high}\" \
             viewBox=\"{x} {y} {width} {height}\">"
        );
        if let Some(text) = &sheet.metadata {
            let _ = writeln!(self.out, "<metadata>{}</metadata>", quick_xml::escape::partial_escape(&**text));
        }
        if let Some(ground) = sheet.ground {
            // Shown in another shape, the sheet lies in the middle and its ground reaches over the margins.
            let margin = shown.map_or(Point::ZERO, |(wide, high)| {
                let shown = Point::new(f64::from(wide), f64::from(high));
                (shown / (shown / size).min_element() - size) * 0.5
            });
            let (corner, size) = (corner - margin, size + margin * 2.0);
            let [x, y, width, height] = [corner.x, corner.y, size.x, size.y].map(plain);
            self.out.push_str("<rect");
            self.attribute("x", &x, "0");
            self.attribute("y", &y, "0");
            let _ = write!(self.out, " width=\"{width}\" height=\"{height}\"");
            self.paint("fill", Some(ground), 1.0);
            self.out.push_str("/>\n");
        }
        if sheet.y_up {
            self.out.push_str("<g");
            self.transform(&sheet.upright());
            self.out.push_str(">\n");
        }
        sheet.nodes.iter().for_each(|node| self.node(node, 1.0));
        if sheet.y_up {
            self.out.push_str("</g>\n");
        }
        self.out.push_str("</svg>\n");
    }

    fn node(&mut self, node: &Node, scale: f64) {
        match node {
            Node::Item(item) => self.item(item, scale),
            Node::Group(group) => self.group(group, scale),
        }
    }

    fn group(&mut self, group: &Group, scale: f64) {
        let scale = scale * largest_scale(&group.transform);
        let clip = group.clip.as_ref().map(|path| self.clip(path, scale));
        self.out.push_str("<g");
        self.name(group.name.as_deref());
        self.transform(&group.transform);
        self.attribute("opacity", &plain(group.opacity), "1");
        if let Some(number) = clip {
            let _ = write!(self.out, " clip-path=\"url(#clip-{number})\"");
        }
        self.out.push_str(">\n");
        group.nodes.iter().for_each(|node| self.node(node, scale));
        self.out.push_str("</g>\n");
    }

    /// Writes a clip and gives its number.
    fn clip(&mut self, path: &Path, scale: f64) -> usize {
        self.clips += 1;
        let _ = write!(self.out, "<clipPath id=\"clip-{}\"><path", self.clips);
        if path.fill_rule() == FillRule::EvenOdd {
            self.out.push_str(" clip-rule=\"evenodd\"");
        }
        let _ = writeln!(self.out, " d=\"{}\"/></clipPath>", path.data_rounded(self.decimals_at(scale)));
        self.clips
    }

    /// Enlarged later, a path needs more decimals; reduced, it can do with fewer.
    fn decimals_at(&self, scale: f64) -> usize {
        let more = if scale > 0.0 { scale.log10().ceil() } else { 0.0 };
        (self.decimals as f64 + more).clamp(0.0, 12.0) as usize
    }

    fn item(&mut self, item: &Item, scale: f64) {
        self.out.push_str("<path");
        self.name(item.name());
        self.transform(&item.transform);
        self.style(&item.style, item.path.fill_rule());
        let decimals = self.decimals_at(scale * largest_scale(&item.transform));
        let _ = writeln!(self.out, " d=\"{}\"/>", item.path.data_rounded(decimals));
    }

    fn style(&mut self, style: &Style, rule: FillRule) {
        if style.paints_nothing() {
            self.paint("fill", None, 1.0);
            self.paint("stroke", Some(DRAFT_COLOUR), 1.0);
            self.out.push_str(" vector-effect=\"non-scaling-stroke\"");
            return;
        }
        // One paint alone can carry the opacity itself.
        let both = style.fill.is_some() && style.stroke.is_some();
        let share = if both { 1.0 } else { style.opacity };
        self.paint("fill", style.fill, share);
        if rule == FillRule::EvenOdd && style.fill.is_some() {
            self.out.push_str(" fill-rule=\"evenodd\"");
        }
        if style.stroke.is_some() && style.outline.width > 0.0 {
            self.paint("stroke", style.stroke, share);
            let outline = &style.outline;
            self.attribute("stroke-width", &plain(outline.width), "1");
            match outline.cap {
                Cap::Butt => {}
                Cap::Round => self.out.push_str(" stroke-linecap=\"round\""),
                Cap::Square => self.out.push_str(" stroke-linecap=\"square\""),
            }
            match outline.join {
                Join::Mitre => self.attribute("stroke-miterlimit", &plain(outline.mitre_limit), "4"),
                Join::Round => self.out.push_str(" stroke-linejoin=\"round\""),
                Join::Bevel => self.out.push_str(" stroke-linejoin=\"bevel\""),
            }
            if outline.dash.iter().any(|length| *length > 0.0) {
                let lengths: Vec<String> = outline.dash.iter().map(|length| plain(*length)).collect();
                let _ = write!(self.out, " stroke-dasharray=\"{}\"", lengths.join(" "));
                self.attribute("stroke-dashoffset", &plain(outline.dash_offset), "0");
            }
        }
        if both {
            self.attribute("opacity", &plain(style.opacity), "1");
        }
    }

    /// A paint and its opacity. Black fill and no stroke are what SVG begins with.
    fn paint(&mut self, which: &str, colour: Option<Colour>, share: f64) {
        let text = colour.map_or("none".to_owned(), |c| Colour { alpha: 1.0, ..c }.hex());
        let _ = write!(self.out, " {which}=\"{text}\"");
        let alpha = colour.map_or(1.0, |c| f64::from(c.alpha) * share);
        // Three decimals are finer than the steps of eight bits.
        let alpha = (alpha * 1000.0).round() / 1000.0;
        self.attribute(&format!("{which}-opacity"), &plain(alpha), "1");
    }

    fn name(&mut self, name: Option<&str>) {
        if let Some(name) = name {
            let _ = write!(self.out, " id=\"{}\"", escaped(name));
        }
    }

    fn attribute(&mut self, name: &str, value: &str, default: &str) {
        if value != default {
            let _ = write!(self.out, " {name}=\"{value}\"");
        }
    }

    fn transform(&mut self, by: &Affine) {
        if *by == Affine::IDENTITY {
            return;
        }
        let [a, b, c, d, e, f] = by.to_cols_array();
        if [a, b, c, d] == [1.0, 0.0, 0.0, 1.0] {
            let _ = write!(self.out, " transform=\"translate({} {})\"", plain(e), plain(f));
        } else {
            let numbers = [a, b, c, d, e, f].map(plain);
            let _ = write!(self.out, " transform=\"matrix({})\"", numbers.join(" "));
        }
    }
}

fn largest_scale(by: &Affine) -> f64 {
    by.matrix2.x_axis.length().max(by.matrix2.y_axis.length())
}

/// A number of an attribute: nine significant digits, in the shortest form.
fn plain(value: f64) -> String {
    if value == 0.0 || !value.is_finite() {
        return "0".to_owned();
    }
    let decimals = (8.0 - value.abs().log10().floor()).clamp(0.0, 12.0) as usize;
    let text = format!("{value:.decimals$}");
    let text = if text.contains('.') { text.trim_end_matches('0').trim_end_matches('.') } else { &text };
    match text {
        "0" | "-0" => "0".to_owned(),
        _ => text.strip_prefix("0.").map_or_else(
            || text.strip_prefix("-0.").map_or_else(|| text.to_owned(), |rest| format!("-.{rest}")),
            |rest| format!(".{rest}"),
        ),
    }
}

/// A text as an attribute's value.
fn escaped(text: &str) -> String {
    let mut out = String::with_capacity(text.len());
    for c in text.chars() {
        match c {
            '&' => out.push_str("&amp;"),
            '<' => out.push_str("&lt;"),
            '"' => out.push_str("&quot;"),
            // Control characters have no place in XML.
            c if c.is_control() => out.push(' '),
            c => out.push(c),
        }
    }
    out
}
