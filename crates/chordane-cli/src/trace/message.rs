//! What the page and the program say to one another, as JSON. Places are in the picture's pixels.

use chordane::draft::{Draft, Step, VertexKind};
use serde::{Deserialize, Serialize};

/// What a page asks for.
#[derive(Clone, Copy, Debug, Deserialize, PartialEq)]
#[serde(tag = "ask", rename_all = "kebab-case", deny_unknown_fields)]
pub(crate) enum Asked {
    /// Applies a step. With `more` it continues the last step, and both are undone together.
    Step {
        step: Step,
        snap: Snap,
        #[serde(default)]
        more: bool,
    },
    /// What it would look like if a step were done.
    Try {
        step: Step,
        snap: Snap,
    },
    /// What is near.
    Look {
        at: [f64; 2],
        reach: f64,
        snap: Snap,
    },
    /// The answer to the question.
    Answer {
        yes: bool,
    },
    Undo,
    Redo,
}

/// What a position is drawn to.
#[derive(Clone, Copy, Debug, Default, Deserialize, PartialEq)]
#[serde(deny_unknown_fields)]
pub(crate) struct Snap {
    /// So near in the picture's pixels; 0 for not at all.
    pub(crate) within: f64,
    /// The step of a grid.
    pub(crate) grid: Option<f64>,
    /// Whether edges of the picture count.
    pub(crate) edges: bool,
}

/// What a page is told.
#[derive(Clone, Debug, PartialEq, Serialize)]
#[serde(tag = "tell", rename_all = "kebab-case")]
pub(crate) enum Told {
    Hello {
        name: String,
        out: String,
        size: [u32; 2],
    },
    /// What is drawn; while something is tried, not what is kept.
    Draft(DraftTold),
    Tried(DraftTold),
    /// What is near: a vertex, or a side with the place on it, and the shape around; and where a vertex would be put.
    Near {
        vertex: Option<(usize, usize)>,
        side: Option<(usize, usize, [f64; 2])>,
        shape: Option<usize>,
        put: [f64; 2],
    },
    File {
        told: String,
    },
    /// The open question, or none.
    Question {
        question: Option<QuestionTold>,
    },
    Refused {
        message: String,
    },
}

/// A question, and what its answers are called.
#[derive(Clone, Debug, PartialEq, Serialize)]
pub(crate) struct QuestionTold {
    pub(crate) told: String,
    pub(crate) yes: &'static str,
    pub(crate) no: Option<&'static str>,
}

impl Told {
    pub(crate) fn json(&self) -> String {
        // Texts and numbers always have a JSON form.
        serde_json::to_string(self).unwrap_or_default()
    }
}

/// A draft, as a page draws it.
#[derive(Clone, Debug, Default, PartialEq, Serialize)]
pub(crate) struct DraftTold {
    pub(crate) shapes: Vec<ShapeTold>,
    pub(crate) active: Option<usize>,
    /// The shape in which the next vertex begins a hole.
    pub(crate) hole_of: Option<usize>,
    pub(crate) undo: usize,
    pub(crate) redo: usize,
}

#[derive(Clone, Debug, PartialEq, Serialize)]
pub(crate) struct ShapeTold {
    pub(crate) id: usize,
    pub(crate) closed: bool,
    pub(crate) hole_of: Option<usize>,
    /// Its outline as path data.
    pub(crate) outline: String,
    pub(crate) vertices: Vec<VertexTold>,
}

#[derive(Clone, Copy, Debug, PartialEq, Serialize)]
pub(crate) struct VertexTold {
    pub(crate) at: [f64; 2],
    pub(crate) kind: VertexKind,
}

impl From<&Draft> for DraftTold {
    fn from(draft: &Draft) -> Self {
        let shape = |shape: &chordane::draft::DraftShape| {
            let vertex =
                |own: &chordane::draft::DraftVertex| VertexTold { at: own.at.to_array(), kind: own.kind };
            ShapeTold {
                id: shape.id,
                closed: shape.closed,
                hole_of: shape.hole_of,
                outline: shape.outline().data_rounded(2),
                vertices: shape.vertices.iter().map(vertex).collect(),
            }
        };
        Self {
            shapes: draft.shapes().map(shape).collect(),
            active: draft.active().map(|shape| shape.id),
            hole_of: draft.begins_hole_in(),
            undo: draft.steps().len(),
            redo: draft.undone(),
        }
    }
}
