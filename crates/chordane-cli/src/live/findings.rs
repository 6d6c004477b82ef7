//! What looks wrong with what is shown, and what of it a click can mend.

use std::sync::Arc;
use std::time::Duration;

use chordane::check::Finding;
use chordane_score::{Settings, mended};

use super::message::FindingTold;
use super::runs::Ready;
use crate::check::looked_over;

/// So many findings are shown.
const MAX_FINDINGS: usize = 100;

/// So many of them are tried to be mended.
const MAX_AUTO_FIXES: usize = 6;

/// What is tried for each.
const KNOB_TIME: Duration = Duration::from_secs(2);
const FIX_TIME: Duration = Duration::from_millis(400);

/// A finding, and the text without it where a click can mend it.
pub(crate) type Mendable = (FindingTold, Option<String>);

/// The findings of a text, the warnings first. `None` where it does not run.
pub(crate) fn of(ready: &mut Ready<'_>, text: &Arc<str>, settings: &Settings) -> Option<Vec<Mendable>> {
    let limits = ready.subject().limits();
    let script = ready.subject().script(text);
    let (runner, _) = ready.runner(text).ok()?;
    let run = runner.run(settings);
    let (report, _) = looked_over(runner, &run, true, limits, KNOB_TIME).ok()?;
    let mut findings = report.findings;
    findings.sort_by_key(|finding| finding.level.name() != "warning");
    findings.truncate(MAX_FINDINGS);
    let told = |(at, finding): (usize, &Finding)| {
        let script = script.as_ref().filter(|_| at < MAX_AUTO_FIXES);
        let after = script.and_then(|script| mended(script, settings, finding, FIX_TIME));
        let told = FindingTold {
            code: finding.code.name(),
            level: finding.level.name(),
            line: finding.line,
            at: finding.at.to_array(),
            message: finding.message.clone(),
            mend: finding.mend.clone(),
            click: after.is_some(),
        };
        (told, after)
    };
    Some(findings.iter().enumerate().map(told).collect())
}
