#pragma once

#include <array>
#include <memory>
#include <string>

#include "core/colour/decisions.h"
#include "core/drawing/drawing.h"
#include "core/drawing/guide.h"
#include "core/job/file_wish.h"
#include "core/job/stock.h"
#include "core/mend/decide.h"
#include "core/packed_bytes.h"
#include "core/picture/picture.h"
#include "core/picture/preparation.h"
#include "core/refine/step.h"
#include "core/trace/ink_trace.h"
#include "core/trace/trace.h"

namespace rim::job {

struct JobMemo;

/// The size that was asked for. Proportions are always kept, so one number says it.
struct SizeWish {
  enum class Of {
    Resolution,      ///< value: dots per inch of the original; 0: its own, else kDefaultDotsPerInch
    PictureWidth,    ///< value: mm, of the whole picture
    PictureHeight,   ///< value: mm, of the whole picture
    OutlinesWidth,   ///< value: mm, of the box round all outlines, whatever the trace finds
    OutlinesHeight,  ///< value: mm, of the box round all outlines
  };
  Of of = Of::Resolution;
  double value = 0;

  friend bool operator==(const SizeWish&, const SizeWish&) = default;
};

/// The sizes that may be asked for, in mm.
inline constexpr double kSmallestSizeMm = 0.1;
inline constexpr double kLargestSizeMm = 100'000;

/// How a picture of several inks is reduced and what is made of it.
struct ColourSettings {
  bool on = false;           ///< off: two tones, ink and paper
  std::optional<int> count;  ///< inks, the background counted, 2..kMostInks; none: as many as are clearly apart
  std::vector<colour::InkStep> steps;  ///< decisions about them, in order
  trace::InkLayout layout = trace::InkLayout::CutOut;

  friend bool operator==(const ColourSettings&, const ColourSettings&) = default;
};

/// Inks as they were found in a picture, kept so that decisions about them need no new search.
struct FoundInks {
  picture::PictureId in = picture::PictureId::None;  ///< the picture that they were found in
  std::optional<int> count;
  colour::InkMap map;
};

/// Outlines as they were at a moment, kept to compare with; never written to a file for a machine.
struct Reference {
  std::string name;                         ///< UTF-8
  std::shared_ptr<const Drawing> outlines;  ///< in the frame of those that it is compared with
  bool shown = true;                        ///< under the outlines, grey

  friend bool operator==(const Reference&, const Reference&) = default;
};

/// So many reference copies a job has at most.
inline constexpr std::size_t kMostReferences = 20;

/// All that the person decided, as a small value: what undo keeps and a job file holds. Pixels and drawings are shared
/// and never changed.
struct Recipe {
  picture::Picture original;  ///< as it was opened
  std::string origin;         ///< where it came from and under what permission, in the user's words (UTF-8)
  std::vector<picture::PreparationStep> preparation;
  ColourSettings colours;
  trace::TraceSettings trace;
  SizeWish size;
  /// A drawing that was read instead of a picture, mm; the original then is empty and only has a name.
  std::shared_ptr<const Drawing> drawing;
  mend::MendWork mend;
  std::vector<refine::Step> refine;  ///< what was done to the mended outlines, in order
  std::optional<Stock> stock;        ///< that is cut from; none: nothing was said
  std::optional<FileWish> file;      ///< that is wanted of it; none: nothing was said yet
  std::vector<Guide> guides;         ///< mm
  std::vector<Reference> references;

  /// Whether both decide the same about the same pixels.
  friend bool operator==(const Recipe&, const Recipe&) = default;
};

/// The steps of the work from a recipe to outlines (job/stages.h), in their order.
enum class StageKind { Prepare, Inks, Trace, Mend, Refine };
inline constexpr std::size_t kStages = 5;

/// A recipe and what is worked out of it so far, as a value: copied freely, given to a worker and given back by it.
struct Job : Recipe {
  /// The original after its preparation; empty as long as that is not worked out.
  picture::Picture picture;
  std::shared_ptr<const FoundInks> found;      ///< null as long as nothing was looked for
  std::shared_ptr<const colour::InkMap> inks;  ///< what was found after all decisions; null with two tones
  std::shared_ptr<const std::vector<colour::InkShare>> inkShares;  ///< of inks; null as long as they are not counted
  /// What tracing gave, in upright px, or the drawing that was read; null as long as it is not traced with these
  /// settings.
  std::shared_ptr<const Drawing> tracing;
  PackedBytes packedTracing;                          ///< of a picture, for job files
  int threshold = 0;                                  ///< that two tones were traced at
  std::shared_ptr<const trace::StrokeFacts> strokes;  ///< of a picture whose strokes became lines; else null
  /// The same after all decisions about findings, in the same frame; null as long as that is not worked out, or nothing
  /// was decided.
  std::shared_ptr<const Drawing> mended;
  /// Decisions about findings (indices into mend.steps) that found nothing.
  std::vector<std::size_t> lost;
  /// The outlines after all refining, in the same frame; null as long as that is not worked out, or nothing is to be
  /// done.
  std::shared_ptr<const Drawing> refined;
  std::vector<refine::Change> refineChanges;  ///< what that changed, mm
  std::vector<OutlineMark> keptByHand;        ///< what handwork is about that was made anew since
  std::vector<OutlineMark> lostByHand;        ///< what was taken out, or put somewhere, by hand and is found no more
  /// What makes the next change quick (job/job_memo.h); a hint, null: nothing is known.
  std::shared_ptr<const JobMemo> memo;
  /// The key of each stage's result: the recipe that it was made of. Null: it is not there. A result belongs when both
  /// recipes decide the same about its stage and all before (isThere() in job/stages.h).
  std::array<std::shared_ptr<const Recipe>, kStages> madeOf;
};

/// A fresh job on a picture.
Job jobOn(picture::Picture picture);

/// A fresh job on a drawing that was read from a file of this name. Its outlines are there at once, in mm.
Job jobOn(Drawing drawing, const std::string& name);

/// Whether there is a picture or a drawing to work on.
bool hasWork(const Job& job);

/// The outlines as they are now: refined or mended when something was decided, else as traced or read; null: not there
/// yet.
std::shared_ptr<const Drawing> outlinesOf(const Job& job);

/// The outlines before they are refined.
std::shared_ptr<const Drawing> mendedOf(const Job& job);

/// Whether two recipes, or those of two jobs, say the same.
inline bool sameWork(const Recipe& a, const Recipe& b) { return a == b; }

/// What was decided, for other pictures: without the picture, and without what was done to this one by hand (touched
/// up, decided about one finding, drawn, put on a layer).
Recipe forOthers(Recipe recipe);

/// The same job without what can be worked out again: its recipe, and a drawing that was read.
Job withoutResults(Job job);

/// The same job with its picture worked out anew from original and preparation.
/// Throws InputError as prepared() does, and Cancelled.
Job withPreparedPicture(Job job, std::stop_token stop = {});

/// The same job with its inks found and decided about; needs the prepared picture. With two tones it has none.
/// Throws Cancelled.
Job withInks(Job job, const std::stop_token& stop = {});

/// The same job with the shares of its inks counted, when it has inks.
Job withInkShares(Job job);

/// The same job with all decisions about findings made anew; needs outlines. Throws Cancelled.
Job withMending(Job job, const std::stop_token& stop = {});

/// The same job with all refining done anew; needs outlines. Throws InputError when a step leaves nothing, Cancelled.
Job withRefining(Job job, const std::stop_token& stop = {});

/// Millimetres per picture pixel, > 0; 1 for a drawing that was read and has no other size wished. A wish for the size
/// of outlines that are not there falls back to the picture's resolution; it means them before they are refined.
double mmPerPixel(const Job& job);

/// The outlines in millimetres on a page as large as the picture. Empty when not traced.
Drawing drawingOf(const Job& job);

/// The box round the outlines as they are now, mm; empty when there are none.
Box outlinesBoxOf(const Job& job);

/// The same before it is refined.
Drawing mendedDrawingOf(const Job& job);

/// A fresh job starts with light ink when the picture's edge is mostly dark: paper surrounds ink.
bool looksLightOnDark(const picture::Picture& picture);

}  // namespace rim::job
