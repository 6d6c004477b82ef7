//! The files of the page, which the program carries along.

/// A file of the page: its name, its kind, and what is in it.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Asset {
    pub(crate) name: &'static str,
    pub(crate) kind: &'static str,
    pub(crate) text: &'static str,
}

macro_rules! assets {
    ($($kind:ident $name:literal),* $(,)?) => {
        &[$(Asset { name: $name, kind: $kind, text: include_str!(concat!("../../page/", $name)) }),*]
    };
}

const SCRIPT: &str = "text/javascript; charset=utf-8";
const STYLE: &str = "text/css; charset=utf-8";

/// The pages, in which the nonce of a request stands in place of `{nonce}`: of a score, and of a picture that is traced.
pub(crate) const LIVE: &str = include_str!("../../page/live.html");
pub(crate) const TRACE: &str = include_str!("../../page/trace.html");

/// All files but the pages themselves.
pub(crate) const ASSETS: &[Asset] = assets![
    STYLE "style.css",
    SCRIPT "live.js",
    SCRIPT "trace.js",
    SCRIPT "wire.js",
    SCRIPT "access.js",
    SCRIPT "kept.js",
    SCRIPT "picture.js",
    SCRIPT "marks.js",
    SCRIPT "overlay.js",
    SCRIPT "text.js",
    SCRIPT "colouring.js",
    SCRIPT "knobs.js",
    SCRIPT "dice.js",
    SCRIPT "time.js",
    SCRIPT "findings.js",
    SCRIPT "export.js",
    SCRIPT "columns.js",
    SCRIPT "asker.js",
    SCRIPT "drag.js",
    SCRIPT "draft.js",
    SCRIPT "draftkeys.js",
    SCRIPT "draftpointer.js",
    SCRIPT "draftview.js",
    SCRIPT "fingers.js",
    SCRIPT "keyboard.js",
    SCRIPT "keys.js",
    SCRIPT "magnifier.js",
    SCRIPT "outline.js",
    SCRIPT "press.js",
    SCRIPT "readout.js",
    SCRIPT "stored.js",
    SCRIPT "parts.js",
    SCRIPT "undo.js",
    SCRIPT "vendor/editor.js",
];

/// A file of the page by its name.
pub(crate) fn asset(name: &str) -> Option<&'static Asset> {
    ASSETS.iter().find(|asset| asset.name == name)
}
