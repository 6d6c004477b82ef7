//! The server: a page's files, one socket for each page, and files that are asked for.

use std::collections::HashMap;
use std::io;
use std::sync::Arc;
use std::sync::atomic::{AtomicU64, Ordering};
use std::time::{Duration, Instant};

use axum::Router;
use axum::body::{Body, Bytes};
use axum::extract::ws::{CloseFrame, Message, Utf8Bytes, WebSocket, WebSocketUpgrade};
use axum::extract::{FromRequestParts, Path, Query, Request, State};
use axum::http::request::Parts;
use axum::http::{HeaderName, HeaderValue, StatusCode, header};
use axum::middleware::{self, Next};
use axum::response::{IntoResponse, Response};
use axum::routing::get;
use futures_util::stream;
use hyper::server::conn::http1;
use hyper_util::rt::{TokioIo, TokioTimer};
use hyper_util::service::TowerToHyperService;
use tokio::io::AsyncWriteExt;
use tokio::net::TcpStream;
use tokio::sync::{OwnedSemaphorePermit, Semaphore, mpsc, watch};

use super::assets::asset;
use super::guard::{Guard, policy, token};

/// No message of a page is longer than this.
const MAX_MESSAGE_BYTES: usize = 9 << 20;

/// A page that sends more than so many messages in a second is let go.
const MAX_MESSAGES_PER_SECOND: u32 = 2000;

/// The way to one page, for answers as JSON.
pub(crate) type Answer = mpsc::UnboundedSender<String>;

/// The most open connections, well below common limits of file descriptors.
const MAX_CONNECTIONS: usize = 200;

/// The time within which the head of a request must arrive.
const HALF_SENT: Duration = Duration::from_secs(10);

/// The pause after a failed accept.
const ACCEPT_AGAIN: Duration = Duration::from_millis(50);

/// The most pieces of a file that wait to be sent.
const MAX_PIECES: usize = 16;

/// A writer whose bytes are sent as the answer to a request. Writing fails once the client is gone.
#[derive(Clone, Debug)]
pub(crate) struct Outlet(mpsc::Sender<Bytes>);

impl Outlet {
    /// An outlet, and the receiver of its pieces.
    pub(crate) fn pair() -> (Self, mpsc::Receiver<Bytes>) {
        let (to, pieces) = mpsc::channel(MAX_PIECES);
        (Self(to), pieces)
    }

    /// Whether the client is gone.
    pub(crate) fn is_closed(&self) -> bool {
        self.0.is_closed()
    }
}

impl io::Write for Outlet {
    fn write(&mut self, bytes: &[u8]) -> io::Result<usize> {
        let some = bytes.get(..bytes.len().min(LONGEST_PIECE)).unwrap_or(bytes);
        let sent = self.0.blocking_send(Bytes::copy_from_slice(some));
        sent.map(|()| some.len()).map_err(|_| io::ErrorKind::BrokenPipe.into())
    }

    fn flush(&mut self) -> io::Result<()> {
        Ok(())
    }
}

/// The longest piece, in bytes.
const LONGEST_PIECE: usize = 1 << 16;

/// What pages talk to.
pub(crate) trait Host: Send + Sync + 'static {
    /// What all pages show.
    type Shown: Clone + Send + Sync + 'static;

    /// The page, in which the nonce of a request stands in place of `{nonce}`.
    fn page(&self) -> &'static str;

    /// What a page is told first.
    fn hello(&self) -> String;

    /// Where what all pages show is published.
    fn shown(&self) -> watch::Receiver<Self::Shown>;

    /// What of it is news to a page that was shown something before, or nothing.
    fn news(&self, now: &Self::Shown, before: Option<&Self::Shown>) -> Vec<String>;

    /// A page asks for something.
    ///
    /// # Errors
    ///
    /// Why it cannot be read.
    fn asked(&self, page: u64, text: &str, answer: &Answer) -> Result<(), String>;

    /// A page is gone.
    fn left(&self, page: u64);

    /// Makes a file of what is shown, and sends it while it is made.
    ///
    /// # Errors
    ///
    /// Why it cannot be made.
    fn save(&self, name: &str, query: &HashMap<String, String>, out: Outlet) -> Result<(), String>;

    /// A file of its own that the page needs: its kind and its bytes.
    fn file(&self, name: &str) -> Option<(&'static str, Vec<u8>)>;

    /// What goes on beside the talk with pages.
    fn beside(self: Arc<Self>) -> impl Future<Output = ()> + Send {
        async {}
    }
}

struct Served<H> {
    host: Arc<H>,
    guard: Arc<Guard>,
    pages: Arc<AtomicU64>,
    /// Permits for connections that are still free.
    room: Arc<Semaphore>,
}

impl<H> Clone for Served<H> {
    fn clone(&self) -> Self {
        let Self { host, guard, pages, room } = self;
        Self { host: host.clone(), guard: guard.clone(), pages: pages.clone(), room: room.clone() }
    }
}

/// Serves pages until the program ends.
pub(crate) async fn serve<H: Host>(
    listener: std::net::TcpListener,
    guard: Guard,
    host: Arc<H>,
) -> std::io::Result<()> {
    let room = Arc::new(Semaphore::new(MAX_CONNECTIONS));
    let pages = Arc::new(AtomicU64::new(1));
    let served = Served { host: host.clone(), guard: guard.into(), pages, room: Arc::clone(&room) };
    let router = Router::new()
        .route("/", get(page::<H>))
        .route("/socket", get(socket::<H>))
        .route("/save/{name}", get(save::<H>))
        .route("/own/{name}", get(own_file::<H>))
        .route("/{*name}", get(file))
        .layer(middleware::from_fn_with_state(served.clone(), let_in::<H>))
        .with_state(served);
    tokio::spawn(host.beside());
    let listener = tokio::net::TcpListener::from_std(listener)?;
    loop {
        let stream = match listener.accept().await {
            Ok((stream, _)) => stream,
            // The client is gone already, or the system is out of descriptors: try again.
            Err(_) => {
                tokio::time::sleep(ACCEPT_AGAIN).await;
                continue;
            }
        };
        // Short answers are not kept back to be sent with others.
        let _ = stream.set_nodelay(true);
        match Arc::clone(&room).try_acquire_owned() {
            Ok(place) => drop(tokio::spawn(connection(stream, router.clone(), place))),
            Err(_) => drop(tokio::spawn(refuse(stream))),
        }
    }
}

/// Answers what comes over one connection.
async fn connection(stream: TcpStream, router: Router, place: OwnedSemaphorePermit) {
    let service = TowerToHyperService::new(router);
    let served = http1::Builder::new()
        .timer(TokioTimer::new())
        .header_read_timeout(HALF_SENT)
        .serve_connection(TokioIo::new(stream), service)
        .with_upgrades();
    // An error ends this connection and nothing else.
    let _ = served.await;
    drop(place);
}

/// Answers that there are too many connections.
async fn refuse(mut stream: TcpStream) {
    let told = "too many connections to this program; close some of its pages";
    let answer = format!(
        "HTTP/1.1 503 Service Unavailable\r\ncontent-type: text/plain; charset=utf-8\r\ncontent-length: {}\r\nconnection: close\r\n\r\n{told}",
        told.len()
    );
    let _ = tokio::time::timeout(HALF_SENT, stream.write_all(answer.as_bytes())).await;
}

/// Lets in only what comes from a page of this server, and says what pages may do.
async fn let_in<H: Host>(State(served): State<Served<H>>, request: Request, next: Next) -> Response {
    if let Some(why) = refusal(&served.guard, &request) {
        return (StatusCode::FORBIDDEN, why).into_response();
    }
    let mut response = next.run(request).await;
    let headers = response.headers_mut();
    let plain: [(HeaderName, &str); 5] = [
        (header::X_CONTENT_TYPE_OPTIONS, "nosniff"),
        (header::REFERRER_POLICY, "no-referrer"),
        (HeaderName::from_static("cross-origin-opener-policy"), "same-origin"),
        (HeaderName::from_static("cross-origin-resource-policy"), "same-origin"),
        (header::CACHE_CONTROL, "no-store"),
    ];
    for (name, value) in plain {
        headers.insert(name, HeaderValue::from_static(value));
    }
    let none = HeaderValue::from_static("default-src 'none'");
    headers.entry(header::CONTENT_SECURITY_POLICY).or_insert(none);
    response
}

/// Why a request is not let in, if it is not.
fn refusal(guard: &Guard, request: &Request) -> Option<&'static str> {
    let headers = request.headers();
    let mut hosts = headers.get_all(header::HOST).iter();
    let host = hosts.next().and_then(|value| value.to_str().ok());
    let origin = headers.get(header::ORIGIN).map(|value| value.to_str().unwrap_or("null"));
    // An address may stand in the first line, too, and then counts more.
    let is_named_so = request.uri().authority().is_none_or(|named| guard.is_own_host(Some(named.as_str())));
    if hosts.next().is_some() || !is_named_so || !guard.is_own_host(host) {
        return Some("this server answers to its own address only");
    }
    (!guard.is_own_origin(origin)).then_some("this server answers to its own page only")
}

async fn page<H: Host>(State(served): State<Served<H>>) -> Response {
    let nonce = token().unwrap_or_default();
    let headers = [
        (header::CONTENT_TYPE, "text/html; charset=utf-8".to_owned()),
        (header::CONTENT_SECURITY_POLICY, policy(&nonce)),
    ];
    (headers, served.host.page().replace("{nonce}", &nonce)).into_response()
}

async fn file(Path(name): Path<String>) -> Response {
    match asset(&name) {
        Some(asset) => ([(header::CONTENT_TYPE, asset.kind)], asset.text).into_response(),
        None => (StatusCode::NOT_FOUND, "there is no such file").into_response(),
    }
}

/// What is asked for with the token of this run; a request without it is refused.
struct WithToken(HashMap<String, String>);

impl<H: Host> FromRequestParts<Served<H>> for WithToken {
    type Rejection = (StatusCode, &'static str);

    async fn from_request_parts(parts: &mut Parts, served: &Served<H>) -> Result<Self, Self::Rejection> {
        let refused = (StatusCode::FORBIDDEN, "the token of this run is missing");
        let query = Query::<HashMap<String, String>>::try_from_uri(&parts.uri).map_err(|_| refused)?.0;
        let given = query.get("token").map(String::as_str);
        if served.guard.is_token(given) { Ok(Self(query)) } else { Err(refused) }
    }
}

async fn own_file<H: Host>(
    State(served): State<Served<H>>,
    Path(name): Path<String>,
    _: WithToken,
) -> Response {
    match served.host.file(&name) {
        Some((kind, bytes)) => ([(header::CONTENT_TYPE, kind)], bytes).into_response(),
        None => (StatusCode::NOT_FOUND, "there is no such file").into_response(),
    }
}

/// A file made of what is shown, for the browser to save.
async fn save<H: Host>(
    State(served): State<Served<H>>,
    Path(name): Path<String>,
    WithToken(query): WithToken,
) -> Response {
    let (out, mut pieces) = Outlet::pair();
    let work = tokio::task::spawn_blocking(move || served.host.save(&name, &query, out));
    let first = pieces.recv().await;
    let mut work = Some(work);
    if first.is_none()
        && let Some(work) = work.take()
        && let Ok(Err(why)) = work.await
    {
        return (StatusCode::UNPROCESSABLE_ENTITY, why).into_response();
    }
    let headers =
        [(header::CONTENT_TYPE, "application/octet-stream"), (header::CONTENT_DISPOSITION, "attachment")];
    let all = stream::unfold((first, pieces, work), |(first, mut pieces, mut work)| async move {
        let next = match first {
            Some(piece) => Some(piece),
            None => pieces.recv().await,
        };
        let piece = match next {
            Some(piece) => Ok(piece),
            // A failure half way cuts the answer off.
            None => match work.take()?.await {
                Ok(Ok(())) => return None,
                Ok(Err(why)) => Err(io::Error::other(why)),
                Err(_) => Err(io::Error::other("the file could not be made")),
            },
        };
        Some((piece, (None, pieces, work)))
    });
    (headers, Body::from_stream(all)).into_response()
}

async fn socket<H: Host>(
    State(served): State<Served<H>>,
    _: WithToken,
    upgrade: WebSocketUpgrade,
) -> Response {
    // A page keeps its connection for as long as it is open.
    let Ok(place) = Arc::clone(&served.room).try_acquire_owned() else {
        return (StatusCode::SERVICE_UNAVAILABLE, "too many pages of this program are open").into_response();
    };
    upgrade.max_message_size(MAX_MESSAGE_BYTES).on_upgrade(move |socket| async move {
        talk(served, socket).await;
        drop(place);
    })
}

/// Talks to one page until it is gone.
async fn talk<H: Host>(served: Served<H>, mut socket: WebSocket) {
    let host = &served.host;
    let page = served.pages.fetch_add(1, Ordering::Relaxed);
    let (answer, mut answers) = mpsc::unbounded_channel();
    let mut shown = host.shown();
    let mut before: Option<H::Shown> = None;
    let mut rate = Rate::default();
    if send(&mut socket, host.hello()).await.is_err() {
        return;
    }
    shown.mark_changed();
    loop {
        tokio::select! {
            changed = shown.changed() => {
                if changed.is_err() {
                    break;
                }
                // What came faster than it could be sent is left out.
                let now = shown.borrow_and_update().clone();
                let mut sent = Ok(());
                for told in host.news(&now, before.as_ref()) {
                    sent = sent.and(send(&mut socket, told).await);
                }
                if sent.is_err() {
                    break;
                }
                before = Some(now);
            }
            Some(told) = answers.recv() => {
                if send(&mut socket, told).await.is_err() {
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
                    // What it sent already is passed over, so that it hears why.
                    let rest = async { while let Some(Ok(_)) = socket.recv().await {} };
                    let _ = tokio::time::timeout(Duration::from_secs(1), rest).await;
                    break;
                }
                if let Err(why) = host.asked(page, &text, &answer) {
                    let message = format!("what the page asked for cannot be read: {why}");
                    let told = serde_json::json!({"tell": "refused", "message": message}).to_string();
                    if send(&mut socket, told).await.is_err() {
                        break;
                    }
                }
            }
        }
    }
    host.left(page);
}

async fn send(socket: &mut WebSocket, text: String) -> Result<(), axum::Error> {
    socket.send(Message::Text(text.into())).await
}

/// How many messages came in this second.
#[derive(Default)]
struct Rate(Option<(Instant, u32)>);

impl Rate {
    fn allows(&mut self) -> bool {
        let now = Instant::now();
        let this_second = self.0.filter(|(since, _)| now - *since < Duration::from_secs(1));
        let (since, count) = this_second.unwrap_or((now, 0));
        self.0 = Some((since, count + 1));
        count < MAX_MESSAGES_PER_SECOND
    }
}
