//! What is to be done to draw parts of a scene, in order.

use super::layers::{Ending, Extent, Layer};
use super::parts::{LayerPart, MaskPart, Part};
use crate::path::{Affine, Path};
use crate::scene::{Placed, Scene};
use crate::sheet::MaskKind;

/// One thing to do, in order.
#[derive(Clone, Copy)]
pub(super) enum Job<'s, 'a> {
    Item(&'s Placed<'a>),
    /// The area of a clip, in a layer of its own.
    Clip(&'a Path, Affine),
    Begin(usize),
    End(usize),
    Whole(&'s LayerPart<'a>, &'s Scene<'a>),
    WholeMask(&'s MaskPart<'a>),
}

/// What is to be done, in order, and the layers that it takes.
#[derive(Default)]
pub(super) struct JobList<'s, 'a> {
    pub(super) jobs: Vec<Job<'s, 'a>>,
    pub(super) layers: Vec<Layer>,
    open: Vec<usize>,
}

impl<'s, 'a> JobList<'s, 'a> {
    pub(super) fn add_all(&mut self, parts: &'s [Part<'a>], scene: &'s Scene<'a>) {
        for part in parts {
            match part {
                Part::Item(number) => self.jobs.extend(scene.items().get(*number).map(Job::Item)),
                Part::Layer(layer) if layer.whole => self.jobs.push(Job::Whole(layer, scene)),
                Part::Layer(layer) => {
                    self.begin(Ending::Over(layer.opacity as f32, layer.blend));
                    self.add_all(&layer.parts, scene);
                    self.cut(layer);
                    self.end();
                }
            }
        }
    }

    /// What a layer is clipped and masked by.
    pub(super) fn cut(&mut self, layer: &'s LayerPart<'a>) {
        if let Some((path, transform)) = layer.clip {
            self.begin(Ending::Mask(MaskKind::Alpha));
            self.jobs.push(Job::Clip(path, transform));
            self.end();
        }
        if let Some(mask) = &layer.mask {
            if mask.parts.iter().any(|part| matches!(part, Part::Layer(layer) if layer.whole)) {
                self.jobs.push(Job::WholeMask(mask));
            } else {
                self.begin(Ending::Mask(mask.kind));
                self.add_all(&mask.parts, &mask.scene);
                self.end();
            }
        }
    }

    fn begin(&mut self, ending: Ending) {
        self.jobs.push(Job::Begin(self.layers.len()));
        let parent = self.open.last().copied();
        self.open.push(self.layers.len());
        self.layers.push(Layer { parent, ending, extent: Extent::default() });
    }

    fn end(&mut self) {
        self.jobs.extend(self.open.pop().map(Job::End));
    }
}
