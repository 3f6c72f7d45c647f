#pragma once

#include <QString>

#include "app/preferences.h"
#include "core/drawing/drawing.h"
#include "core/mend/decide.h"

namespace rim::app {

/// "Open ends", the heading of a kind's group in the list.
QString kindText(mend::FindingKind kind);

/// What a repair does, as a choice: "Keep the outer edge".
QString repairText(const std::string& repair);

/// "12 outlines, all closed, nothing drawn twice." or how many findings there are. Of the open ones `penLines` are
/// lines that a pen drew.
QString totalsText(const Counts& counts, std::size_t penLines, std::size_t findings);

/// "Mend: join open ends", the name of the undo step.
QString stepName(const mend::MendStep& step);

}  // namespace rim::app
