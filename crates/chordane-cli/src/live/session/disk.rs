//! The file: written when something changed here, looked at when somebody else changed it.

use std::sync::Arc;

use super::Session;
use crate::failure::Failure;
use crate::live::desk::Gesture;
use crate::live::message::FileState;
use crate::live::paper::Look;
use crate::live::text::merged;

impl Session<'_> {
    /// Looks what became of the file.
    pub(super) fn outside(&mut self) {
        let Some(paper) = &mut self.paper else { return };
        match paper.look() {
            Look::Same => {
                // There is nothing to ask any more; what is not in it yet is written.
                self.theirs = None;
                if matches!(self.shown.file.0, FileState::Gone | FileState::Asking) {
                    self.shown.file = (FileState::Saved, "".into());
                }
                self.stale.file = **paper.known() != **self.desk.text();
            }
            Look::Gone => {
                let told = format!(
                    "{} was moved, renamed or deleted; your next change writes it again",
                    paper.file().display()
                );
                self.shown.file = (FileState::Gone, told.into());
            }
            Look::Unreadable(why) => self.shown.file = (FileState::Unsaved, why.into()),
            Look::Other(theirs) => match merged(paper.known(), self.desk.text(), &theirs) {
                Some(text) => {
                    paper.know(&theirs);
                    self.theirs = None;
                    self.stale.file = *text != *theirs;
                    self.shown.file = (FileState::Saved, "".into());
                    self.desk
                        .change("a change of the file", Gesture::Single, |state| state.text = text.into());
                    let file = self.stale.file;
                    self.changed();
                    self.stale.file = file;
                }
                None => self.ask(theirs),
            },
        }
        self.publish();
    }

    /// Which text is to be kept cannot be known.
    fn ask(&mut self, theirs: Arc<str>) {
        let told = "another program changed lines of the file that were also changed here";
        self.shown.file = (FileState::Asking, told.into());
        self.theirs = Some(theirs);
        self.stale.file = false;
    }

    pub(super) fn keep(&mut self, own: bool) {
        let (Some(theirs), Some(paper)) = (self.theirs.take(), &mut self.paper) else { return };
        paper.know(&theirs);
        self.shown.file = (FileState::Saved, "".into());
        if !own {
            self.desk.change("the file's text", Gesture::Single, |state| state.text = theirs);
        }
        self.changed();
        self.stale.file = own;
    }

    /// Writes the file, unless somebody else has changed it.
    pub(super) fn save(&mut self) {
        self.stale.file = false;
        if self.theirs.is_some() {
            return;
        }
        let Some(paper) = &mut self.paper else { return };
        if let Look::Other(_) = paper.look() {
            self.outside();
            return;
        }
        if **paper.known() == **self.desk.text() && paper.file().exists() {
            self.shown.file = (FileState::Saved, "".into());
            return;
        }
        self.shown.file = match paper.write(self.desk.text()) {
            Ok(()) => (FileState::Saved, "".into()),
            Err(failure) => (FileState::Unsaved, why_unsaved(&failure).into()),
        };
    }
}

fn why_unsaved(failure: &Failure) -> String {
    format!("not saved: {failure}. The text is kept here, and your next change tries again")
}
