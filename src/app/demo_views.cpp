#include "app/demo_views.h"

#include <QApplication>
#include <QDir>
#include <QElapsedTimer>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QSlider>
#include <QToolButton>
#include <QTreeWidget>

#include "app/bench/bench.h"
#include "app/look.h"
#include "app/main_window.h"
#include "app/shelf/shelf_dialog.h"
#include "app/steps/colours/colours_room.h"
#include "app/steps/export/export_room.h"
#include "app/steps/export/sketch_dialog.h"
#include "app/steps/mend/mend_room.h"
#include "app/steps/picture/picture_panel.h"
#include "app/steps/picture/picture_room.h"
#include "app/steps/refine/hand/handwork.h"
#include "app/steps/refine/hand/node_tool.h"
#include "app/steps/refine/hand/select_tool.h"
#include "app/steps/refine/refine_panel.h"
#include "app/steps/refine/refine_room.h"
#include "app/steps/trace/reference_dialog.h"
#include "app/steps/trace/smoothness_curve.h"
#include "app/steps/trace/trace_room.h"
#include "app/widgets/fold.h"
#include "core/io/svg/write_svg.h"

namespace rim::app {
namespace {

constexpr int kMostMs = 60'000;

/// Until the picture is assessed and distances are measured.
void waitForQuiet(const MainWindow& w) {
  waitFor([&w] {
    const auto* worth = w.findChild<QLabel*>("worth");
    return worth->text() != PicturePanel::measuringText() && !w.session().measuring();
  });
}

/// What the picture's ink becomes.
void traceBy(MainWindow& w, trace::TraceMethod method) {
  w.session().edit({}, {}, [method](job::Job& job) { job.trace.method = method; });
  waitFor([&w] { return w.session().upToDate(); });
}

/// A click with the tool on the bench, and the pointer somewhere else (px of the demo badge, y down).
void clickAndPoint(MainWindow& window, Point click, Point pointer) {
  constexpr double kBadgePx = 320;
  const ToolView view{window.bench().viewport(), kBadgePx};
  BenchTool& tool = window.findChild<RefinePanel*>()->handwork().tool();
  tool.press(click, view);
  tool.release(click, view);
  tool.move(pointer, view);
}

void scrollTo(QWidget& widget) {
  for (QWidget* at = widget.parentWidget(); at != nullptr; at = at->parentWidget()) {
    if (auto* fold = qobject_cast<Fold*>(at)) fold->setOpen(true);
  }
  QApplication::processEvents();
  for (QWidget* at = widget.parentWidget(); at != nullptr; at = at->parentWidget()) {
    if (auto* scroll = qobject_cast<QScrollArea*>(at)) scroll->ensureWidgetVisible(&widget);
  }
}

}  // namespace

bool waitFor(const std::function<bool()>& done) {
  QElapsedTimer clock;
  clock.start();
  while (!done() && clock.elapsed() < kMostMs)
    QApplication::processEvents(QEventLoop::WaitForMoreEvents | QEventLoop::AllEvents, 50);
  return done();
}

QString demoOf(const QString& view) {
  if (view.startsWith("picture")) return "window-card-photo.jpg";
  if (view.startsWith("mend")) return "spool-plate.dxf";
  if (view == "strokes" || view == "breaks") return "swallow.jpg";
  return view == "both" ? "weather-vane.png" : "badge.jpg";
}

const QHash<QString, std::function<void(MainWindow&)>>& demoViews() {
  static const QHash<QString, std::function<void(MainWindow&)>> all{
      {"picture",
       [](MainWindow& w) {
         w.showStep(Step::Picture);
         waitForQuiet(w);
       }},
      {"picture-done",
       [](MainWindow& w) {
         w.showStep(Step::Picture);
         w.room<PictureRoom>().actions().traceable->trigger();
         waitFor([&w] { return !w.session().job().preparation.empty() && w.session().upToDate(); });
         waitForQuiet(w);
       }},
      {"picture-frame",
       [](MainWindow& w) {
         w.showStep(Step::Picture);
         waitForQuiet(w);
         w.findChild<QToolButton*>("tool:Corners")->click();
       }},
      {"keys",
       [](MainWindow& w) {
         w.showStep(Step::Mend);
         w.actions().keys->trigger();
       }},
      {"colours", [](MainWindow& w) { w.showStep(Step::Colours); }},
      {"colours-lit",
       [](MainWindow& w) {
         w.showStep(Step::Colours);
         w.room<ColoursRoom>().lightInk(3);
       }},
      {"trace",
       [](MainWindow& w) {
         w.showStep(Step::Trace);
         waitFor([&w] { return !w.findChild<SmoothnessCurve*>()->nodes().empty(); });
       }},
      {"strokes",
       [](MainWindow& w) {
         w.showStep(Step::Trace);
         traceBy(w, trace::TraceMethod::Centreline);
         w.session().edit({}, {}, [](job::Job& job) { job.trace.strokes.healPx = 26; });
         waitFor([&w] { return w.session().upToDate(); });
       }},
      {"both",
       [](MainWindow& w) {
         w.showStep(Step::Trace);
         traceBy(w, trace::TraceMethod::Mixed);
         w.session().edit({}, {}, [](job::Job& job) {
           job.trace.strokes.switched = {trace::PartSwitch{{1866, 749}, true}};
         });
         waitFor([&w] { return w.session().upToDate(); });
         w.room<TraceRoom>().actions().switchParts->setChecked(true);
       }},
      {"breaks",
       [](MainWindow& w) {
         traceBy(w, trace::TraceMethod::Centreline);
         w.showStep(Step::Mend);
         waitForQuiet(w);
         w.room<MendRoom>().actions().nextFinding->trigger();
       }},
      {"export",
       [](MainWindow& w) {
         w.actions().compare->actions()[static_cast<int>(Compare::Outlines)]->trigger();
         w.showStep(Step::Export);
         const QString file = QDir::temp().filePath("badge.dxf");
         w.session().exportTo(file, {});
         waitFor([&w] { return !w.session().busy(); });
         QFile::remove(file);
       }},
      {"seam", [](MainWindow& w) { w.actions().compare->actions()[static_cast<int>(Compare::Seam)]->trigger(); }},
      {"nodes",
       [](MainWindow& w) {
         w.actions().nodes->setChecked(true);
         w.bench().lookAt({112, 265}, 10);
       }},
      {"distances",
       [](MainWindow& w) {
         w.session().keepReference();
         w.session().edit("Smoothness", {}, [](job::Job& job) { job.trace.tolerancePx = 1.2; });
         waitFor([&w] { return w.session().upToDate(); });
         w.bench().lookAt({112, 265}, 10);
         w.room<TraceRoom>().actions().deviation->setChecked(true);
         waitForQuiet(w);
       }},
      {"dark", [](MainWindow& w) { w.actions().appearance->actions()[static_cast<int>(Appearance::Dark)]->trigger(); }},
      {"mend",
       [](MainWindow& w) {
         w.showStep(Step::Mend);
         waitFor([&w] { return w.session().findings() != nullptr; });
         w.bench().fit();
       }},
      {"mend-finding",
       [](MainWindow& w) {
         w.showStep(Step::Mend);
         waitFor([&w] { return w.session().findings() != nullptr; });
         w.room<MendRoom>().actions().nextFinding->trigger();
         waitForQuiet(w);
         QElapsedTimer clock;  // the preview of the repair is worked out beside the window
         clock.start();
         waitFor([&clock] { return clock.elapsed() > 500; });
       }},
      {"mend-done",
       [](MainWindow& w) {
         w.showStep(Step::Mend);
         const auto settle = [&w] {
           waitFor([&w] { return w.session().upToDate() && w.session().findings() != nullptr; });
         };
         settle();
         w.room<MendRoom>().actions().mendSafe->trigger();
         settle();
         w.session().edit("Mend", {}, [](job::Job& job) {
           for (const mend::FindingKind kind :
                {mend::FindingKind::OpenEnd, mend::FindingKind::Loop, mend::FindingKind::Spike}) {
             job.mend.steps.push_back(
                 {mend::MendStep::What::Kind, kind, {}, kind == mend::FindingKind::OpenEnd ? "join" : "cut off"});
           }
         });
         settle();
         w.bench().fit();
       }},
      {"refine",
       [](MainWindow& w) {
         w.showStep(Step::Refine);
         const auto* panel = w.findChild<RefinePanel*>();
         waitFor([panel] { return panel->offers() != nullptr; });
         w.room<RefineRoom>().actions().nextOffer->trigger();
       }},
      {"refine-done",
       [](MainWindow& w) {
         w.showStep(Step::Refine);
         auto* panel = w.findChild<RefinePanel*>();
         waitFor([panel] { return panel->offers() != nullptr; });
         w.session().edit("Refine", {}, [](job::Job& job) {
           job.refine = {refine::Sharpen{0.6}, refine::AddRing{4, 3, refine::Joins::Round}};
         });
         waitFor([&w] { return w.session().upToDate(); });
         waitFor([panel] { return panel->offers() != nullptr; });
         panel->handwork().tool().chooseNext();
         w.bench().fit();
       }},
      {"hand",
       [](MainWindow& w) {
         w.showStep(Step::Refine);
         auto* panel = w.findChild<RefinePanel*>();
         waitFor([panel] { return panel->offers() != nullptr; });
         w.bench().lookAt({152, 78}, 9);
         panel->handwork().take(Hand::Nodes);
         const auto outline = outlineAt(*job::outlinesOf(w.session().job()), {147, 76}, 4, true);
         if (outline) panel->handwork().noding().takeHold(*outline, {1, 2, 3});
       }},
      {"sketch",
       [](MainWindow& w) {
         w.showStep(Step::Export);
         w.room<ExportRoom>().actions().sketch->trigger();
         waitFor([&w] { return w.findChild<SketchDialog*>() != nullptr && w.findChild<SketchDialog*>()->ready(); });
       }},
      {"shelf",
       [](MainWindow& w) {
         w.actions().shelf->trigger();
         waitFor([&w] { return w.findChild<ShelfDialog*>()->ready(); });
       }},
      {"draw",
       [](MainWindow& w) {
         w.showStep(Step::Refine);
         auto* panel = w.findChild<RefinePanel*>();
         waitFor([panel] { return panel->offers() != nullptr; });
         panel->handwork().take(Hand::Draw);
         clickAndPoint(w, {160, 160}, {253.5, 160});
       }},
      {"layers",
       [](MainWindow& w) {
         w.session().edit({}, {}, [](job::Job& job) { job.colours.on = true; });
         waitFor([&w] { return w.session().upToDate(); });
         w.showStep(Step::Refine);
         auto* list = w.findChild<QTreeWidget*>("layers");
         list->setCurrentItem(list->topLevelItem(1));
         w.findChild<QPushButton*>("lockLayer")->click();
         waitFor([&w] { return w.session().upToDate(); });
         auto* panel = w.findChild<RefinePanel*>();
         panel->handwork().selecting().chooseAll();
         scrollTo(*w.findChild<QPushButton*>("lockLayer"));
       }},
      {"mirror",
       [](MainWindow& w) {
         w.showStep(Step::Refine);
         auto* panel = w.findChild<RefinePanel*>();
         waitFor([panel] { return panel->offers() != nullptr; });
         const auto outline = outlineAt(*job::outlinesOf(w.session().job()), {147, 76}, 4, true);
         if (outline) panel->handwork().selecting().choose({*outline});
         panel->handwork().take(Hand::Mirror);
         clickAndPoint(w, {205, 320}, {190, 190});
       }},
      {"simpler",
       [](MainWindow& w) {
         w.showStep(Step::Refine);
         auto* slider = w.findChild<QSlider*>("simplify");
         constexpr int kSeen = 34;
         slider->setValue(kSeen);
         auto* take = w.findChild<QPushButton*>("takeSimpler");
         waitFor([take] { return take->isEnabled(); });
         scrollTo(*take);
       }},
      {"guides",
       [](MainWindow& w) {
         w.showStep(Step::Refine);
         auto* panel = w.findChild<RefinePanel*>();
         waitFor([panel] { return panel->offers() != nullptr; });
         w.session().edit("Guides", {}, [](job::Job& job) { job.guides = {{true, 46}, {false, 60}, {false, 22}}; });
         panel->handwork().take(Hand::Draw);
         clickAndPoint(w, {80, 120}, {216, 282});
       }},
      {"symmetry",
       [](MainWindow& w) {
         Drawing kite = makeDrawing(
             {polygonThrough({{30, 88}, {58.1, 60}, {30.2, 12}, {2, 60}}),
              polygonThrough({{29, 80}, {10, 61}, {29, 61.1}}), polygonThrough({{31, 80.1}, {31, 61}, {50.2, 61}}),
              polygonThrough({{29, 58}, {10, 58}, {29.1, 25}}), polygonThrough({{31, 58}, {31.1, 25}, {50, 58.2}})});
         kite.pageWidth = 60;
         kite.pageHeight = 100;
         w.session().openDrawingBytes(QByteArray::fromStdString(io::svg::svgText(kite)), "kite.svg");
         waitFor([&w] { return w.session().job().drawing && w.session().upToDate(); });
         w.showStep(Step::Refine);
         const auto* panel = w.findChild<RefinePanel*>();
         waitFor([panel] { return panel->offers() != nullptr; });
         for (std::size_t k = 0; k < panel->offers()->size(); ++k) w.room<RefineRoom>().actions().nextOffer->trigger();
         w.bench().fit();
       }},
      {"references",
       [](MainWindow& w) {
         w.showStep(Step::Refine);
         w.session().keepReference();
         w.session().edit("Simplify", {}, [](job::Job& job) { job.refine = {refine::Simplify{0.25}}; });
         waitFor([&w] { return w.session().upToDate(); });
         w.actions().references->trigger();
         auto* dialog = w.findChild<ReferenceDialog*>();
         waitFor([dialog] { return !dialog->looking(); });
       }},
      {"faults",
       [](MainWindow& w) {
         w.showStep(Step::Refine);
         auto* panel = w.findChild<RefinePanel*>();
         waitFor([panel] { return panel->offers() != nullptr; });
         for (const Outline& outline : job::outlinesOf(w.session().job())->outlines) {
           constexpr double kKitePx = 160;  // high
           if (outline.box().height() > kKitePx && outline.box().height() < kKitePx + 20)
             panel->handwork().selecting().choose({outline.id});
         }
         panel->handwork().selecting().nudge({18, 4});
         waitFor([&w] { return w.session().faultsByRefining() && !w.session().faultsByRefining()->empty(); });
         waitFor([panel] { return panel->offers() != nullptr; });
         w.room<RefineRoom>().actions().nextFault->trigger();
       }},
      {"offset",
       [](MainWindow& w) {
         w.showStep(Step::Refine);
         auto* panel = w.findChild<RefinePanel*>();
         waitFor([panel] { return panel->offers() != nullptr; });
         w.session().edit("Stock", {}, [](job::Job& job) { job.stock = job::Stock{120, 100, {-14, -8}}; });
         w.bench().fit();
         panel->handwork().take(Hand::Offset);
         clickAndPoint(w, {12, 160}, {0, 160});
         QElapsedTimer clock;  // the offset is worked out beside the window
         clock.start();
         waitFor([&clock] { return clock.elapsed() > 500; });
       }},
      {"empty", [](MainWindow&) {}},
  };
  return all;
}

}  // namespace rim::app
