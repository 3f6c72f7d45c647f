#pragma once

#include "core/geometry/path.h"

namespace rim::trace::outline {

/// A fitted path (px) without lines that step back against the way of both segments beside them: where pieces that run
/// the same way meet nowhere near, short ones between them may turn back. Taken out are those of less than `anyPx`,
/// lines of next to no length whichever way they run, and, between two lines, folds of less than 3 px or whose three
/// lines lie within half a px side by side, as no border does. The segments beside them meet half-way. The first and
/// the last segment of an open path stay; a closed one may begin at another node.
Path withoutBacksteps(Path path, double anyPx = 0.5);

/// The open path (px) without a first or last line shorter than `shortPx` that turns back nearly along what follows or
/// comes before; that begins or ends where it did.
Path withoutHooks(Path path, double shortPx);

}  // namespace rim::trace::outline
