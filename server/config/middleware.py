"""What Django 5 does not do of itself with answers: their headers, and none but these for HEAD."""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse, HttpResponseBase

from server.config.page import version

# Styles are inline because the style library writes them so; everything else comes from here alone.
POLICY = (
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; font-src 'self' data:; "
    "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
)

GetResponse = Callable[[HttpRequest], HttpResponseBase]


def content_security_policy(get_response: GetResponse) -> GetResponse:
    """Tell the browser to load nothing from elsewhere."""

    def respond(request: HttpRequest) -> HttpResponseBase:
        response = get_response(request)
        response.headers.setdefault("Content-Security-Policy", POLICY)
        return response

    return respond


def page_version(get_response: GetResponse) -> GetResponse:
    """Tell a page that is open which version is served by now: after an upgrade it asks to be loaded again."""

    def respond(request: HttpRequest) -> HttpResponseBase:
        response = get_response(request)
        if request.path.startswith("/api/"):
            response.headers["Page-Version"] = version()
        return response

    return respond


def private(get_response: GetResponse) -> GetResponse:
    """Nothing on the way keeps what the API answers: it is for whoever has asked."""

    def respond(request: HttpRequest) -> HttpResponseBase:
        response = get_response(request)
        if request.path.startswith("/api/"):
            response.headers.setdefault("Cache-Control", "no-store")
        return response

    return respond


def head_alone(get_response: GetResponse) -> GetResponse:
    """A request for the head alone gets it with the length that a body would have, and no body (RFC 9110, 9.3.2)."""

    def respond(request: HttpRequest) -> HttpResponseBase:
        response = get_response(request)
        if request.method != "HEAD":
            return response
        bare = HttpResponse(status=response.status_code, headers=dict(response.headers))
        bare.cookies = response.cookies
        response.close()
        return bare

    return respond
