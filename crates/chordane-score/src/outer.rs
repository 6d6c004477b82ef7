//! What a score's functions see of the values that stand above them.
//!
//! The engine gives a function its own values only. So a script whose functions name values of the script itself is run
//! statement by statement, and after each one those values are laid out for the functions, shared: what is changed
//! later is seen as it is then.

use std::collections::HashMap;
use std::sync::atomic::{AtomicU64, Ordering};
use std::sync::{Arc, Mutex, PoisonError};

use rhai::{AST, ASTNode, Dynamic, Engine, EvalAltResult, Expr, Position, Scope, Stmt};

use crate::running::Running;

/// The names in a script's functions that stand for no value of their own.
pub(crate) fn outer_names(script: &AST) -> Vec<String> {
    // Functions without a name are handed what they use.
    let functions: Vec<_> =
        script.iter_fn_def().filter(|function| !function.name.starts_with("anon$")).collect();
    if functions.is_empty() {
        return Vec::new();
    }
    let mut own: Vec<(Position, String)> = Vec::new();
    let mut used: Vec<(Position, String)> = Vec::new();
    script.walk(&mut |path: &[ASTNode<'_>]| {
        match path.last() {
            Some(ASTNode::Expr(Expr::Variable(variable, _, place))) => {
                used.push((*place, variable.1.to_string()));
            }
            Some(ASTNode::Stmt(Stmt::Var(variable, _, place))) => {
                own.push((*place, variable.0.name.to_string()));
            }
            Some(ASTNode::Stmt(Stmt::For(parts, place))) => own.push((*place, parts.0.name.to_string())),
            _ => {}
        }
        true
    });
    let mut names: Vec<String> = Vec::new();
    for function in functions {
        let within = function.body.start_position()..=function.body.end_position();
        let is_own = |name: &String| {
            function.params.iter().any(|param| param.as_str() == name.as_str())
                || own.iter().any(|(place, own)| within.contains(place) && own == name)
        };
        let free = used.iter().filter(|(place, name)| within.contains(place) && !is_own(name));
        names.extend(free.map(|(_, name)| name.clone()));
    }
    names.sort_unstable();
    names.dedup();
    names.retain(|name| name != "PI");
    names
}

/// Runs a script whose functions see values of its own, and gives its last value.
pub(crate) fn run(
    engine: &mut Engine,
    scope: &mut Scope<'static>,
    script: &AST,
    names: &[String],
    running: &Arc<Running>,
) -> Result<Dynamic, Box<EvalAltResult>> {
    let laid_out: Arc<Mutex<HashMap<String, Dynamic>>> = Arc::default();
    let seen = Arc::clone(&laid_out);
    #[allow(deprecated, reason = "the engine's way to say that a call may change; its version is pinned")]
    engine.on_var(move |name, _, context| {
        if context.scope().contains(name) {
            return Ok(None);
        }
        Ok(seen.lock().unwrap_or_else(PoisonError::into_inner).get(name).cloned())
    });
    // Each statement is counted anew by the engine, and all of them together here.
    let taken = Arc::new(AtomicU64::new(0));
    let count = Arc::clone(&taken);
    let asked = Arc::clone(running);
    engine.on_progress(move |steps| {
        count.store(steps, Ordering::Relaxed);
        asked.exhausted().map(Dynamic::from)
    });
    let (mut last, mut left) = (Dynamic::UNIT, running.limits.steps);
    let statements = script.statements();
    let mut at = 0;
    while let Some(statement) = statements.get(at) {
        // What may end the script runs together with all that follows, since ending it is told by no one else.
        let end = if may_return(statement) { statements.len() } else { at + 1 };
        let part = statements.get(at..end).unwrap_or_default().iter().cloned();
        let part = AST::new(part, script.shared_lib().clone());
        engine.set_max_operations(left.max(1));
        last = engine.eval_ast_with_scope(scope, &part)?;
        left = left.saturating_sub(taken.swap(0, Ordering::Relaxed));
        let mut laid_out = laid_out.lock().unwrap_or_else(PoisonError::into_inner);
        for name in names {
            if let Some(value) = scope.get_mut(name) {
                if !value.is_shared() {
                    *value = std::mem::take(value).into_shared();
                }
                laid_out.insert(name.clone(), value.clone());
            } else if let Some(value) = scope.get(name) {
                laid_out.insert(name.clone(), value.clone());
            }
        }
        at = end;
    }
    Ok(last)
}

fn may_return(statement: &Stmt) -> bool {
    let mut found = false;
    statement.walk(&mut Vec::new(), &mut |path| {
        found |= matches!(path.last(), Some(ASTNode::Stmt(Stmt::Return(..))));
        !found
    });
    found
}
