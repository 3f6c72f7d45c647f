#pragma once

#include "core/drawing/in_millimetres.h"
#include "core/mend/decide.h"
#include "core/refine/refining.h"

namespace rim::job {

/// What was worked out for a job, kept so that little is worked out anew after its next change. Each part says what it
/// was made of; nothing hangs on its being there. A value.
struct JobMemo {
  InMillimetres traced;
  InMillimetres mended;
  InMillimetres refined;
  mend::Decisions decisions;  ///< on `traced`
  refine::Refining refining;  ///< of `mended`
  mend::Inspected faultsOfMended;
  mend::Inspected faultsOfRefined;
};

}  // namespace rim::job
