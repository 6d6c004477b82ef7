//! Frames of a loop as one SVG document that moves by itself.

use std::error::Error;
use std::fmt;
use std::fmt::Write;

use super::drawn::DrawnLine;
use super::motion::{Loop, same_segments};
use crate::ground::Fault;
use crate::sheet::Sheet;
use crate::sheet::WriteOptions;
use crate::write::element::{Recording, Side, Source, Tag, Value};

/// Frames of a loop as one SVG document that moves by itself, in any size and at any rate, going round for ever.
///
/// The document is the first frame, with animation elements of SVG 1.1 for what is not the same in all of them: transforms (moved, turned, slanted
/// and scaled), paths with the same contours and segments in every frame, widths, dashes and their offsets, opacities, colours, gradients and effects; and lines that are drawn in or out. The frames are
/// even moments of the loop, the first at phase 0; it has them exactly, goes straight from each to the next, and jumps where they jump. What does
/// not move stands in it once. The title, the description and the metadata are those of the first frame.
///
/// What cannot be said so is told: items that come and go, paths whose number of segments changes, other pictures or kinds of paint.
///
/// Cost: the attributes that change are held for all frames.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::write::SvgFrames;
/// let mut frames = SvgFrames::new(2.0, WriteOptions::default());
/// for k in 0..24 {
///     let sail = polygon((0.0, 0.0), 4, 20.0).fill("teal").rotated(turns(f64::from(k) / 24.0));
///     frames.push(&sheet(60.0, 60.0).centred().add(sail))?;
/// }
/// let text = frames.text()?;
/// assert!(text.contains(r#"type="rotate" values="0;360" dur="2s" repeatCount="indefinite""#));
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Clone, Debug)]
pub struct SvgFrames {
    options: WriteOptions,
    seconds: f64,
    /// The longer side of the sheet, and the decimals of its lengths.
    side: f64,
    decimals: usize,
    count: usize,
    tags: Vec<Moving>,
    sources: Vec<Source>,
    unsaid: Vec<Unsaid>,
}

/// Attributes and what they are in each frame.
type Attributes = Vec<(&'static str, Vec<Value>)>;

/// A tag and what its attributes are in each frame; one value stands for all frames so far.
#[derive(Clone, Debug)]
struct Moving {
    side: Side,
    name: String,
    attributes: Attributes,
    /// The item that it belongs to.
    source: Option<usize>,
}

/// Something that moves in a way that SVG's animation elements cannot say; see [`SvgFrames`].
///
/// ```
/// use chordane::prelude::*;
/// use chordane::write::SvgFrames;
/// let mut frames = SvgFrames::new(1.0, WriteOptions::default());
/// for sides in [4, 5] {
///     frames.push(&sheet(60.0, 60.0).centred().add(polygon((0.0, 0.0), sides, 20.0).fill("teal").named("vent")))?;
/// }
/// let error = frames.text().unwrap_err();
/// assert_eq!(error.unsaid()[0].to_string(), "item 1 (vent): its path has 4 vertices in one frame and 5 in another");
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct Unsaid {
    /// The item, counted from 0 in the order in which they are written; `None` where it is about the whole sheet.
    pub item: Option<usize>,
    /// The item's name.
    pub name: Option<String>,
    /// The line of the score that made it.
    pub line: Option<usize>,
    /// What is not the same in all frames.
    pub message: String,
}

impl fmt::Display for Unsaid {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        if let Some(item) = self.item {
            write!(out, "item {}", item + 1)?;
            let line = self.line.map(|line| format!("line {line}"));
            let about: Vec<&str> = [self.name.as_deref(), line.as_deref()].into_iter().flatten().collect();
            if !about.is_empty() {
                write!(out, " ({})", about.join(", "))?;
            }
            out.write_str(": ")?;
        }
        out.write_str(&self.message)
    }
}

/// The frames cannot be one document that moves; see [`SvgFrames`].
///
/// ```
/// use chordane::prelude::*;
/// use chordane::write::SvgFrames;
/// let error = SvgFrames::new(1.0, WriteOptions::default()).text().unwrap_err();
/// assert_eq!(error.to_string(), "the motion cannot be written as animated SVG: there is no frame");
/// ```
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct StillOnly {
    unsaid: Vec<Unsaid>,
}

impl StillOnly {
    /// All that stands in the way.
    #[must_use]
    pub fn unsaid(&self) -> &[Unsaid] {
        &self.unsaid
    }
}

impl fmt::Display for StillOnly {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        out.write_str("the motion cannot be written as animated SVG")?;
        if let [first, rest @ ..] = self.unsaid.as_slice() {
            write!(out, ": {first}")?;
            if !rest.is_empty() {
                write!(out, ", and {} more", rest.len())?;
            }
        }
        Ok(())
    }
}

impl Error for StillOnly {}

impl SvgFrames {
    /// No frame yet of a loop that takes so many seconds, one where that is not above 0.
    #[must_use]
    pub fn new(seconds: f64, options: WriteOptions) -> Self {
        let seconds = if seconds > 0.0 && seconds.is_finite() { seconds } else { 1.0 };
        let (tags, sources, unsaid) = (Vec::new(), Vec::new(), Vec::new());
        Self { options, seconds, side: 0.0, decimals: 0, count: 0, tags, sources, unsaid }
    }

    /// Adds the next frame.
    ///
    /// # Errors
    ///
    /// The first fault of what is drawn.
    pub fn push(&mut self, frame: &Sheet) -> Result<(), Fault> {
        if !self.unsaid.is_empty() {
            // What is not made alike cannot be laid one on the other any more.
            return frame.scene().map(|_| ());
        }
        let (Recording { tags, sources }, decimals) = frame.svg_tags(&self.options)?;
        if self.count == 0 {
            (self.side, self.decimals, self.sources) = (frame.size.max_element(), decimals, sources);
            let moving = |(at, Tag { side, name, attributes }): (usize, Tag)| Moving {
                // What is defined for an item comes before it.
                source: self.sources.iter().position(|source| source.tag >= at),
                side,
                name,
                attributes: attributes.into_iter().map(|(name, value)| (name, vec![value])).collect(),
            };
            self.tags = tags.into_iter().enumerate().map(moving).collect();
        } else if let Some(unlike) = self.unlike(&tags, &sources) {
            self.unsaid.push(unlike);
        } else {
            for (known, tag) in self.tags.iter_mut().zip(tags) {
                known.add(self.count, tag.attributes);
            }
        }
        self.count += 1;
        Ok(())
    }

    /// How a frame is not made as the first one is.
    fn unlike(&self, tags: &[Tag], sources: &[Source]) -> Option<Unsaid> {
        let number = self.count + 1;
        let (a, b) = (self.sources.len(), sources.len());
        if a != b {
            let items = if a == 1 { "item" } else { "items" };
            let message = format!("frame 1 has {a} {items}, and frame {number} has {b}");
            return Some(Unsaid { item: None, name: None, line: None, message });
        }
        let same = |(known, tag): (&Moving, &Tag)| {
            // Texts are titles and metadata, which are those of the first frame.
            known.side == tag.side && (known.side == Side::Text || known.name == tag.name)
        };
        let at = if self.tags.len() == tags.len() {
            self.tags.iter().zip(tags).position(|pair| !same(pair))?
        } else {
            let shared = self.tags.iter().zip(tags).position(|pair| !same(pair));
            shared.unwrap_or(self.tags.len().min(tags.len()))
        };
        let message = format!("it is made of different parts in frame 1 and frame {number}");
        Some(self.about(self.tags.get(at).and_then(|tag| tag.source), message))
    }

    fn about(&self, item: Option<usize>, message: String) -> Unsaid {
        let source = item.and_then(|item| self.sources.get(item));
        Unsaid {
            item,
            name: source.and_then(|source| source.name.clone()),
            line: source.and_then(|source| source.line),
            message,
        }
    }

    /// The document.
    ///
    /// # Errors
    ///
    /// What moves in a way that cannot be said; and that there is no frame.
    pub fn text(&self) -> Result<String, StillOnly> {
        let mut unsaid = self.unsaid.clone();
        if self.tags.is_empty() {
            unsaid.push(self.about(None, "there is no frame".to_owned()));
        }
        let with = Loop { seconds: self.seconds, decimals: self.decimals, side: self.side };
        let mut out = String::new();
        for tag in &self.tags {
            for message in tag.written(self.count, &with, &mut out) {
                let one = self.about(tag.source, message);
                if !unsaid.contains(&one) {
                    unsaid.push(one);
                }
            }
        }
        if unsaid.is_empty() { Ok(out) } else { Err(StillOnly { unsaid }) }
    }
}

impl Moving {
    /// The attributes of one more frame.
    fn add(&mut self, count: usize, mut new: Vec<(&'static str, Value)>) {
        for (name, values) in &mut self.attributes {
            let value =
                new.iter().position(|(own, _)| own == name).map_or(Value::Absent, |at| new.swap_remove(at).1);
            grow(values, value, count);
        }
        for (name, value) in new {
            let mut values = vec![Value::Absent];
            grow(&mut values, value, count);
            self.attributes.push((name, values));
        }
    }

    /// Writes the tag with what moves in it; gives what cannot be said.
    fn written(&self, count: usize, with: &Loop, out: &mut String) -> Vec<String> {
        match self.side {
            Side::Text => out.push_str(&self.name),
            Side::Close => {
                let _ = writeln!(out, "</{}>", self.name);
            }
            Side::Open | Side::Alone => return self.element(count, with, out),
        }
        Vec::new()
    }

    fn element(&self, count: usize, with: &Loop, out: &mut String) -> Vec<String> {
        let mut attributes = self.attributes.clone();
        hide_unpainted(&mut attributes, count);
        let line = drawn_line(&attributes, count);
        if line.is_some() {
            attributes.retain(|(name, _)| *name != "d");
        } else {
            hide_empty(&mut attributes, count);
        }
        let (mut motions, mut unsaid) = (String::new(), Vec::new());
        let name = if line.is_some() { "g" } else { self.name.as_str() };
        let _ = write!(out, "<{name}");
        for (name, values) in &attributes {
            match values.first() {
                Some(Value::Text(text)) => {
                    let _ = write!(out, " {name}=\"{text}\"");
                }
                Some(Value::Path(path, decimals)) => {
                    let _ = write!(out, " {name}=\"{}\"", path.data_rounded(*decimals));
                }
                Some(Value::Absent) | None => {}
            }
            if values.len() > 1 {
                match with.animated(name, values) {
                    Ok(motion) => motions.push_str(&motion),
                    Err(message) => unsaid.push(message),
                }
            }
        }
        if let Some(line) = line {
            let _ = writeln!(out, ">{motions}");
            line.written(with, out);
            let _ = writeln!(out, "</{name}>");
            return unsaid;
        }
        // A title keeps its text without a line end.
        let end = if matches!(name, "title" | "desc" | "metadata") { "" } else { "\n" };
        let _ = match (self.side, motions.is_empty()) {
            (Side::Alone, true) => write!(out, "/>{end}"),
            (Side::Alone, false) => write!(out, ">{motions}</{name}>{end}"),
            _ => write!(out, ">{motions}{end}"),
        };
        unsaid
    }
}

/// The line of which each frame shows a part: where nothing but a stroke in one colour, without dashes, is painted along paths whose segments
/// are not the same in all frames.
fn drawn_line(attributes: &Attributes, count: usize) -> Option<DrawnLine> {
    let values = values_of(attributes, "d", count)?;
    let rest =
        |name: &str| attributes.iter().find(|(own, _)| *own == name).map(|(_, values)| values.as_slice());
    let text = |name: &str| rest(name).and_then(|values| values.first()).and_then(Value::text);
    let unfilled = text("fill") == Some("none") && rest("fill").is_some_and(|values| values.len() == 1);
    let coloured = text("stroke").is_some_and(|text| text.starts_with('#'));
    if !unfilled || !coloured || rest("stroke-dasharray").is_some() || same_segments(values) {
        return None;
    }
    DrawnLine::of(values)
}

/// Adds the value of one more frame, where there are so many.
fn grow(values: &mut Vec<Value>, value: Value, count: usize) {
    if values.len() == 1 {
        match values.first() {
            Some(first) if *first == value => return,
            Some(first) => *values = vec![first.clone(); count],
            None => {}
        }
    }
    values.push(value);
}

/// Frames in which something is not painted have the colour and the stroke of the nearest frame in which it is, fully transparent.
fn hide_unpainted(attributes: &mut Attributes, count: usize) {
    for (paint, opacity) in [("fill", "fill-opacity"), ("stroke", "stroke-opacity")] {
        let Some(values) = values_of(attributes, paint, count) else { continue };
        let hidden: Vec<bool> =
            values.iter().map(|value| value.text().is_none_or(|text| text == "none")).collect();
        if !hidden.contains(&true) || !hidden.contains(&false) {
            continue;
        }
        if !attributes.iter().any(|(name, _)| *name == opacity) {
            attributes.push((opacity, vec![Value::Absent]));
        }
        for (name, values) in attributes.iter_mut() {
            let own = *name == paint || name.strip_prefix(paint).is_some_and(|rest| rest.starts_with('-'));
            if own {
                from_nearest(values, &hidden);
            }
            if *name == opacity {
                spread(values, count);
                for (value, _) in values.iter_mut().zip(&hidden).filter(|(_, hidden)| **hidden) {
                    *value = Value::Text("0".to_owned());
                }
            }
        }
    }
}

/// Frames in which a path is empty have the path of the nearest frame in which it is not, and do not show it.
fn hide_empty(attributes: &mut Attributes, count: usize) {
    let Some(values) = values_of(attributes, "d", count) else { return };
    let empty = |value: &Value| matches!(value, Value::Path(path, _) if path.contours().is_empty());
    let hidden: Vec<bool> = values.iter().map(empty).collect();
    if !hidden.contains(&true) || !hidden.contains(&false) {
        return;
    }
    for (name, values) in attributes.iter_mut() {
        if *name == "d" {
            from_nearest(values, &hidden);
        }
    }
    let seen = |hidden: &bool| Value::Text(if *hidden { "hidden" } else { "visible" }.to_owned());
    attributes.push(("visibility", hidden.iter().map(seen).collect()));
}

/// The values of an attribute that changes.
fn values_of<'v>(attributes: &'v Attributes, name: &str, count: usize) -> Option<&'v [Value]> {
    let values = attributes.iter().find(|(own, _)| *own == name).map(|(_, values)| values.as_slice())?;
    (values.len() == count && count > 1).then_some(values)
}

/// One value for each frame.
fn spread(values: &mut Vec<Value>, count: usize) {
    if let (1, Some(first)) = (values.len(), values.first().cloned()) {
        *values = vec![first; count];
    }
}

/// Hidden frames take the value of the nearest one that is not, earlier ones first.
fn from_nearest(values: &mut [Value], hidden: &[bool]) {
    if values.len() != hidden.len() {
        return;
    }
    let seen: Vec<usize> = (0..hidden.len()).filter(|i| hidden.get(*i) == Some(&false)).collect();
    for i in (0..hidden.len()).filter(|i| hidden.get(*i) == Some(&true)) {
        let nearest = seen.iter().min_by_key(|at| at.abs_diff(i)).and_then(|at| values.get(*at)).cloned();
        if let (Some(nearest), Some(value)) = (nearest, values.get_mut(i)) {
            *value = nearest;
        }
    }
}
