//! New values that nothing keeps: `g.moved([10, 0]);` as a line of its own leaves `g` as it was, and what it gives is lost.

use rhai::{AST, ASTNode, Expr, Position, Stmt};

use crate::values::Kind;
use crate::words::{Word, Words};

/// A new value that is lost.
pub(crate) struct Lost {
    pub(crate) message: String,
    pub(crate) mend: String,
    pub(crate) place: Position,
}

/// The first value of a script that a line of its own makes and nothing keeps.
pub(crate) fn unkept(script: &AST, words: &Words) -> Option<Lost> {
    let own: Vec<String> = script.iter_functions().map(|function| function.name.to_owned()).collect();
    let mut found: Vec<Lost> = Vec::new();
    // The last statement of a list is its value, where that counts.
    let mut look = |list: &[Stmt], value_counts: bool| {
        let lines = if value_counts { list.len().saturating_sub(1) } else { list.len() };
        found.extend(list.iter().take(lines).filter_map(|line| lost(line, &own, words)));
    };
    look(script.statements(), true);
    let mut outer: Vec<(Position, Option<Lost>)> = Vec::new();
    script.walk(&mut |path: &[ASTNode<'_>]| {
        if let [ASTNode::Stmt(statement)] = path {
            outer.push((statement.position(), lost(statement, &own, words)));
        }
        match path.last() {
            Some(ASTNode::Stmt(Stmt::Block(block))) => look(block.statements(), true),
            Some(ASTNode::Stmt(Stmt::If(flow, _) | Stmt::TryCatch(flow, _))) => {
                look(flow.body.statements(), true);
                look(flow.branch.statements(), true);
            }
            Some(ASTNode::Stmt(Stmt::While(flow, _) | Stmt::Do(flow, ..))) => {
                look(flow.body.statements(), false)
            }
            Some(ASTNode::Stmt(Stmt::For(parts, _))) => look(parts.2.body.statements(), false),
            Some(ASTNode::Expr(Expr::Stmt(block))) => look(block.statements(), true),
            _ => {}
        }
        true
    });
    // After the script's own statements come those of its functions, one after the other.
    let bodies: Vec<(Position, Position)> = script
        .iter_fn_def()
        .map(|function| (function.body.start_position(), function.body.end_position()))
        .collect();
    let body_of = |place: Position| {
        let around = bodies.iter().filter(|(begin, end)| *begin <= place && place <= *end);
        around.max_by_key(|(begin, _)| *begin).copied()
    };
    // A small function of one expression has no body: that expression is its value.
    let small = |place: Position| {
        script
            .iter_fn_def()
            .any(|function| function.body.end_position().is_none() && function.body.start_position() == place)
    };
    let of_functions = outer.into_iter().skip(script.statements().len());
    let mut inner = of_functions.filter(|(place, _)| !small(*place)).peekable();
    while let Some((place, lost)) = inner.next() {
        // A function of one expression has no body to speak of.
        let body = body_of(place);
        let last = body.is_none() || inner.peek().is_none_or(|(next, _)| body_of(*next) != body);
        found.extend(lost.filter(|_| !last));
    }
    found.into_iter().min_by_key(|lost| lost.place)
}

/// What a line loses, if it does. Functions of the script's own come before words.
fn lost(line: &Stmt, own: &[String], words: &Words) -> Option<Lost> {
    let (name, given, receiver, place) = match line {
        Stmt::FnCall(call, place) => (call.name.as_str(), call.args.len(), None, *place),
        Stmt::Expr(expression) => match &**expression {
            Expr::FnCall(call, place) => (call.name.as_str(), call.args.len(), None, *place),
            Expr::Dot(chain, ..) => {
                let mut last = &chain.rhs;
                while let Expr::Dot(rest, ..) = last {
                    last = &rest.rhs;
                }
                let Expr::MethodCall(call, place) = last else { return None };
                let receiver = match &chain.lhs {
                    Expr::Variable(variable, ..) => Some(variable.1.as_str()),
                    _ => None,
                };
                (call.name.as_str(), call.args.len() + 1, receiver, *place)
            }
            _ => return None,
        },
        _ => return None,
    };
    let forms: Vec<&Word> = words.named(name).filter(|word| word.arity() == given).collect();
    if forms.is_empty()
        || own.iter().any(|function| function == name)
        || !forms.iter().all(|word| is_value(word))
    {
        return None;
    }
    let method = forms.iter().any(|word| !word.on.is_empty());
    let (message, mend) = match receiver.filter(|_| method) {
        Some(variable) => (
            format!(
                "`{name}` gives a new value and leaves `{variable}` as it was, and nothing keeps it here"
            ),
            format!("write {variable} = {variable}.{name}(..)"),
        ),
        None => (
            format!("`{name}` gives {}, and nothing keeps it here", forms.first()?.gives.described()),
            "give it a name, as in let sail = .., or add it to the sheet".to_owned(),
        ),
    };
    Some(Lost { message, mend, place })
}

/// Whether a word only gives a value: it changes nothing where it stands, and throws no dice for their own sake.
fn is_value(word: &Word) -> bool {
    let thrown = word.on.contains(&Kind::Dice) && word.gives != Kind::List;
    let asked =
        word.on.is_empty() && matches!(word.gives, Kind::Number | Kind::Text | Kind::Flag | Kind::Dice);
    !word.in_place && !thrown && !asked
}
