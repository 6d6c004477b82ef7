//! The server: the page's files, one socket for each page, and files to be saved.

use std::collections::HashMap;
use std::sync::Arc;
use std::sync::atomic::{AtomicU64, Ordering};
use std::sync::mpsc::Sender;
use std::time::{Duration, Instant};

use axum::Router;
use axum::body::Body;
use axum::extract::ws::{CloseFrame, Message, Utf8Bytes, WebSocket, WebSocketUpgrade};
use axum::extract::{Path, Query, Request, State};
use axum::http::{HeaderMap, HeaderName, HeaderValue, StatusCode, header};
use axum::middleware::{self, Next};
use axum::response::{IntoResponse, Response};
use axum::routing::get;
use tokio::sync::{mpsc, watch};

use super::assets::{PAGE, asset};
use super::flags::Flags;
use super::guard::{Guard, policy, token};
use super::message::{Asked, Told};
use super::session::{Job, What};
use super::shown::Shown;

/// No message of a page is longer than this.
const LONGEST: usize = 9 << 20;

/// A page that sends more than so many messages in a second is let go.
const MOST_A_SECOND: u32 = 2000;

/// A run that goes on for longer than this is told.
const SLOW: Duration = Duration::from_millis(400);

/// What all requests share.
#[derive(Clone)]
pub(crate) struct Served(Arc<Inside>);

struct Inside {
    guard: Guard,
    flags: Flags,
    jobs: Sender<Job>,
    shown: watch::Receiver<Shown>,
    /// For how long the run goes on that is slow, if one is.
    slow: watch::Receiver<Option<u64>>,
    hello: Told,
    pages: AtomicU64,
    save: Box<dyn Fn(&str, &HashMap<String, String>, &Sender<Job>) -> Saved + Send + Sync>,
    words: String,
}

/// A file to be saved, or why there is none.
pub(crate) type Saved = Result<Vec<u8>, String>;

/// How a file is made that is to be saved: by its name and what is asked of it.
pub(crate) type Save = Box<dyn Fn(&str, &HashMap<String, String>, &Sender<Job>) -> Saved + Send + Sync>;

impl Served {
    pub(crate) fn new(
        guard: Guard,
        (flags, jobs): (Flags, Sender<Job>),
        (shown, slow): (watch::Receiver<Shown>, watch::Receiver<Option<u64>>),
        (hello, words): (Told, String),
        save: Save,
    ) -> Self {
        let pages = AtomicU64::new(1);
        Self(Arc::new(Inside { guard, flags, jobs, shown, slow, hello, pages, save, words }))
    }

    pub(crate) fn router(self) -> Router {
        Router::new()
            .route("/", get(page))
            .route("/words.json", get(words))
            .route("/socket", get(socket))
            .route("/save/{name}", get(save))
            .route("/{*name}", get(file))
            .layer(middleware::from_fn_with_state(self.clone(), let_in))
            .with_state(self)
    }
}

/// Lets in only what comes from a page of this server, and says what pages may do.
async fn let_in(State(served): State<Served>, request: Request, next: Next) -> Response {
    if let Some(why) = refusal(&served.0.guard, request.headers()) {
        return (StatusCode::FORBIDDEN, why).into_response();
    }
    let mut response = next.run(request).await;
    let headers = response.headers_mut();
    let plain: [(HeaderName, &str); 4] = [
        (header::X_CONTENT_TYPE_OPTIONS, "nosniff"),
        (header::REFERRER_POLICY, "no-referrer"),
        (HeaderName::from_static("cross-origin-opener-policy"), "same-origin"),
        (HeaderName::from_static("cross-origin-resource-policy"), "same-origin"),
    ];
    for (name, value) in plain {
        headers.insert(name, HeaderValue::from_static(value));
    }
    headers.insert(header::CACHE_CONTROL, HeaderValue::from_static("no-store"));
    if !headers.contains_key(header::CONTENT_SECURITY_POLICY)
        && let Ok(value) = HeaderValue::from_str("default-src 'none'")
    {
        headers.insert(header::CONTENT_SECURITY_POLICY, value);
    }
    response
}

/// Why a request is not let in, if it is not.
fn refusal(guard: &Guard, headers: &HeaderMap) -> Option<&'static str> {
    let host = headers.get(header::HOST).and_then(|value| value.to_str().ok());
    let origin = headers.get(header::ORIGIN).map(|value| value.to_str().unwrap_or("null"));
    if !guard.is_own_host(host) {
        return Some("this server answers to its own address only");
    }
    (!guard.is_own_origin(origin)).then_some("this server answers to its own page only")
}

async fn page() -> Response {
    let nonce = token().unwrap_or_default();
    let headers = [
        (header::CONTENT_TYPE, "text/html; charset=utf-8".to_owned()),
        (header::CONTENT_SECURITY_POLICY, policy(&nonce)),
    ];
    (headers, PAGE.replace("{nonce}", &nonce)).into_response()
}

async fn file(Path(name): Path<String>) -> Response {
    match asset(&name) {
        Some(asset) => ([(header::CONTENT_TYPE, asset.kind)], asset.text).into_response(),
        None => (StatusCode::NOT_FOUND, "there is no such file").into_response(),
    }
}

async fn words(State(served): State<Served>) -> Response {
    ([(header::CONTENT_TYPE, "application/json")], served.0.words.clone()).into_response()
}

fn given<'q>(query: &'q HashMap<String, String>, name: &str) -> Option<&'q str> {
    query.get(name).map(String::as_str)
}

/// A file made of what is shown, for the browser to save.
async fn save(
    State(served): State<Served>,
    Path(name): Path<String>,
    Query(query): Query<HashMap<String, String>>,
) -> Response {
    if !served.0.guard.is_token(given(&query, "token")) {
        return (StatusCode::FORBIDDEN, "the token of this run is missing").into_response();
    }
    let work = tokio::task::spawn_blocking(move || (served.0.save)(&name, &query, &served.0.jobs));
    match work.await {
        Ok(Ok(bytes)) => {
            let headers = [
                (header::CONTENT_TYPE, "application/octet-stream"),
                (header::CONTENT_DISPOSITION, "attachment"),
            ];
            (headers, Body::from(bytes)).into_response()
        }
        Ok(Err(why)) => (StatusCode::UNPROCESSABLE_ENTITY, why).into_response(),
        Err(_) => (StatusCode::INTERNAL_SERVER_ERROR, "the file could not be made").into_response(),
    }
}

async fn socket(
    State(served): State<Served>,
    Query(query): Query<HashMap<String, String>>,
    headers: HeaderMap,
    upgrade: WebSocketUpgrade,
) -> Response {
    // Browsers always say where a page comes from when it opens a socket.
    if !headers.contains_key(header::ORIGIN) && headers.contains_key("sec-fetch-site") {
        return (StatusCode::FORBIDDEN, "this server answers to its own page only").into_response();
    }
    if !served.0.guard.is_token(given(&query, "token")) {
        return (StatusCode::FORBIDDEN, "the token of this run is missing").into_response();
    }
    upgrade.max_message_size(LONGEST).on_upgrade(move |socket| talk(served, socket))
}

/// Talks to one page until it is gone.
async fn talk(served: Served, mut socket: WebSocket) {
    let inside = &served.0;
    let page = inside.pages.fetch_add(1, Ordering::Relaxed);
    let (answer, mut answers) = mpsc::unbounded_channel();
    let (mut shown, mut slow) = (inside.shown.clone(), inside.slow.clone());
    let mut before: Option<Shown> = None;
    let mut rate = Rate::default();
    if send(&mut socket, &inside.hello).await.is_err() {
        return;
    }
    shown.mark_changed();
    loop {
        tokio::select! {
            changed = shown.changed() => {
                if changed.is_err() {
                    break;
                }
                let now = shown.borrow_and_update().clone();
                let mut sent = Ok(());
                for told in now.news(before.as_ref()) {
                    sent = sent.and(send(&mut socket, &told).await);
                }
                if sent.is_err() {
                    break;
                }
                before = Some(now);
            }
            _ = slow.changed() => {
                let lasts = *slow.borrow_and_update();
                let seconds = lasts.map_or(0.0, |lasts| lasts as f64 / 10.0);
                if send(&mut socket, &Told::Slow { seconds }).await.is_err() {
                    break;
                }
            }
            Some(told) = answers.recv() => {
                if send(&mut socket, &told).await.is_err() {
                    break;
                }
            }
            message = socket.recv() => {
                let text = match message {
                    Some(Ok(Message::Text(text))) => text,
                    Some(Ok(Message::Ping(_) | Message::Pong(_))) => continue,
                    _ => break,
                };
                if !rate.allows() {
                    let reason = Utf8Bytes::from_static("too many messages in a second");
                    let _ = socket.send(Message::Close(Some(CloseFrame { code: 1008, reason }))).await;
                    break;
                }
                match serde_json::from_str::<Asked>(&text) {
                    Ok(asked) => {
                        match asked {
                            Asked::Stop => inside.flags.stop(),
                            Asked::Edit { .. } | Asked::Undo | Asked::Redo => inside.flags.supersede(),
                            _ => {}
                        }
                        let job = Job { page, what: What::Asked(asked), answer: answer.clone() };
                        if inside.jobs.send(job).is_err() {
                            break;
                        }
                    }
                    Err(error) => {
                        let message = format!("what the page asked for cannot be read: {error}");
                        if send(&mut socket, &Told::Refused { message }).await.is_err() {
                            break;
                        }
                    }
                }
            }
        }
    }
    let _ = inside.jobs.send(Job { page, what: What::Left, answer });
}

async fn send(socket: &mut WebSocket, told: &Told) -> Result<(), axum::Error> {
    let text = serde_json::to_string(told).map_err(axum::Error::new)?;
    socket.send(Message::Text(text.into())).await
}

/// How many messages came in this second.
#[derive(Default)]
struct Rate(Option<(Instant, u32)>);

impl Rate {
    fn allows(&mut self) -> bool {
        let now = Instant::now();
        let (since, count) =
            self.0.filter(|(since, _)| now - *since < Duration::from_secs(1)).unwrap_or((now, 0));
        self.0 = Some((since, count + 1));
        count < MOST_A_SECOND
    }
}

/// Says how long a run goes on, in tenths of a second, while one is slow. Nothing is done where none is.
pub(crate) async fn watch_runs(flags: Flags, slow: watch::Sender<Option<u64>>) {
    loop {
        flags.begun().await;
        let mut wait = SLOW;
        loop {
            tokio::time::sleep(wait).await;
            match flags.lasts() {
                Some(lasts) if lasts >= SLOW => {
                    slow.send_replace(Some(lasts.as_millis() as u64 / 100));
                    wait = Duration::from_secs(1);
                }
                _ => break,
            }
        }
        slow.send_if_modified(|slow| slow.take().is_some());
    }
}
