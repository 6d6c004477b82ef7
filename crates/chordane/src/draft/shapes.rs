//! What a draft holds: shapes of vertices.

use crate::number::Point;
use crate::path::{Path, Vertex, corner, rounded, soft, through};

/// How the outline passes a vertex.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize))]
#[cfg_attr(feature = "serde", serde(rename_all = "kebab-case"))]
#[non_exhaustive]
pub enum VertexKind {
    /// With a corner; two in a row have a straight side between them.
    #[default]
    Corner,
    /// Without one: the outline goes through it in a curve.
    Soft,
    /// With a corner that an arc of this radius cuts short.
    Rounded(f64),
}

/// A vertex of a draft.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct DraftVertex {
    /// Where it is.
    pub at: Point,
    /// How the outline passes it.
    pub kind: VertexKind,
}

impl From<DraftVertex> for Vertex {
    fn from(vertex: DraftVertex) -> Self {
        match vertex.kind {
            VertexKind::Corner => corner(vertex.at),
            VertexKind::Soft => soft(vertex.at),
            VertexKind::Rounded(radius) => rounded(vertex.at, radius),
        }
    }
}

/// A shape of a draft.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct DraftShape {
    /// The number by which steps name it: 1 for the first that was begun. It is never used again.
    pub id: usize,
    /// Its vertices in order.
    pub vertices: Vec<DraftVertex>,
    /// Whether its outline comes back to where it began.
    pub closed: bool,
    /// The shape in which it is a hole.
    pub hole_of: Option<usize>,
    /// The colour that it is filled with, where it was given one: red, green and blue.
    pub colour: Option<[u8; 3]>,
}

impl DraftShape {
    /// Its outline, without its holes.
    #[must_use]
    pub fn outline(&self) -> Path {
        let curve = through(self.vertices.iter().copied());
        if self.closed { curve.close() } else { curve.open() }
    }

    /// How many sides it has: one from each vertex to the next, and one back to the first where it is closed.
    #[must_use]
    pub fn sides(&self) -> usize {
        if self.closed && self.vertices.len() > 1 {
            self.vertices.len()
        } else {
            self.vertices.len().saturating_sub(1)
        }
    }
}
