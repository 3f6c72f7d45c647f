// The Trace step in the window: starting points, rules, distances, the reference copy.

#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QTemporaryDir>

#include "app/steps/trace/smoothness_curve.h"
#include "app/steps/trace/trace_room.h"
#include "app/widgets/notice.h"
#include "core/trace/outline/rules.h"
#include "support/test_list.h"
#include "window_fixture.h"

using namespace rim;
using namespace rim::app;
using namespace rim::test;

class TestTraceStep : public QObject {
  Q_OBJECT

 private slots:
  void nodesAlongTheSmoothnessAreShown() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    f.session().edit("two tones", {}, [](job::Job& job) { job.colours.on = false; });
    QVERIFY(QTest::qWaitFor([&] { return f.session().upToDate(); }, kPatienceMs));
    f.window->showStep(Step::Trace);
    auto* curve = f.find<SmoothnessCurve>("smoothnessCurve");
    QVERIFY(QTest::qWaitFor([&] { return !curve->nodes().empty(); }, kPatienceMs));
    QVERIFY(curve->isVisible());
    QVERIFY(curve->nodes().front().nodes > curve->nodes().back().nodes);
    // A click near the right end sets a large tolerance, as a step of undo; the curve stays.
    const double before = f.job().trace.tolerancePx;
    QTest::mouseClick(curve, Qt::LeftButton, {}, QPoint(curve->width() - 12, curve->height() / 3));
    QVERIFY(f.job().trace.tolerancePx > 8);
    QVERIFY(!curve->nodes().empty());
    QTest::mouseClick(curve, Qt::RightButton, {}, QPoint(20, curve->height() / 3));
    QVERIFY(f.job().trace.tolerancePx > 8);
    f.window->actions().undo->trigger();
    QCOMPARE(f.job().trace.tolerancePx, before);
    // Another picture has another curve.
    QVERIFY(f.open(demoFile("window-card.png")));
    QVERIFY(
        QTest::qWaitFor([&] { return !curve->nodes().empty() && curve->nodes().front().nodes > 300; }, kPatienceMs));
  }

  void aStartingPointIsOneStep() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    const trace::TraceSettings before = f.job().trace;
    auto* beginning = f.find<QComboBox>("startingPoint");
    QTest::keyClick(beginning, Qt::Key_Down);
    emit beginning->activated(3);
    QVERIFY(f.settle());
    QCOMPARE(f.job().trace.tolerancePx, 0.8);
    QCOMPARE(beginning->currentIndex(), -1);
    QVERIFY(f.window->actions().undo->text().contains("phone photo"));
    f.window->actions().undo->trigger();
    while (f.session().history().canUndo() && !(f.job().trace == before)) f.window->actions().undo->trigger();
    QVERIFY(f.job().trace == before);
  }

  /// As a fax or a scanner saves it: no greys at its edges.
  void aPictureOfBlackAndWhiteHasFewNodes() {
    QTemporaryDir folder;
    QImage image(600, 400, QImage::Format_Mono);
    image.fill(1);
    QPainter painter(&image);
    painter.setBrush(Qt::black);
    painter.setPen(Qt::NoPen);
    painter.drawEllipse(QPointF(150.3, 180.7), 110, 110);
    painter.drawPolygon(QPolygonF({{320, 60}, {560.5, 110}, {500, 300.5}, {300, 260}}));
    painter.end();
    const QString file = folder.filePath("black-and-white.png");
    QVERIFY(image.save(file));
    WindowFixture f;
    QVERIFY(f.open(file));
    QCOMPARE(f.find<QLabel>("segmentCounts")->text(), "6 nodes: 4 lines, 2 arcs, 0 curves");
  }

  void noiseWithoutBoundIsToldInASentence() {
    QTemporaryDir folder;
    QImage stripes(2500, 2500, QImage::Format_Grayscale8);
    for (int y = 0; y < stripes.height(); ++y) {
      for (int x = 0; x < stripes.width(); ++x) stripes.scanLine(y)[x] = x % 2 == 0 ? 0 : 255;
    }
    const QString file = folder.filePath("stripes.png");
    QVERIFY(stripes.save(file));
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    QSignalSpy failed(&f.session(), &Session::failed);
    f.window->openFile(file);
    QTRY_VERIFY_WITH_TIMEOUT(failed.count() == 1, kPatienceMs);
    QVERIFY(f.settle());
    const QString sentence = failed.front().front().toString();
    QVERIFY2(sentence.contains("more than 6 million points") && sentence.endsWith('.'), qPrintable(sentence));
    auto* notice = f.find<Notice>("notice");
    QVERIFY(notice != nullptr && notice->isVisible());
    // The picture is there, so that what the sentence advises can be done.
    QCOMPARE(f.job().original.name, "stripes.png");
    QVERIFY(f.session().upToDate() && f.job().tracing->outlines.empty());
    f.find<QDoubleSpinBox>("smallest")->setValue(3000);
    QVERIFY(f.settle());
    QCOMPARE(failed.count(), 1);
    f.session().seal();
    // A setting that cannot be traced is taken back.
    f.find<QDoubleSpinBox>("smallest")->setValue(4);
    QTRY_COMPARE_WITH_TIMEOUT(failed.count(), 2, kPatienceMs);
    QVERIFY(f.settle());
    QCOMPARE(f.job().trace.minAreaPx2, 3000.0);
    QCOMPARE(f.job().original.name, "stripes.png");
    while (f.session().history().canUndo() && f.job().original.name != "badge.png") f.window->actions().undo->trigger();
    QVERIFY(f.settle());
    QCOMPARE(f.job().tracing->outlines.size(), 29U);
  }

  void rulesAreSwitchedOneByOne() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    for (const char* name :
         {"exact:level, upright", "exact:parallel, square", "exact:equal radii", "exact:concentric", "exact:tangent"}) {
      auto* box = f.find<QCheckBox>(name);
      QVERIFY2(box != nullptr && box->isChecked(), name);
      box->click();
    }
    QVERIFY(f.settle());
    QVERIFY(trace::outline::namesOf(f.job().trace.rules).empty());
    f.window->actions().undo->trigger();
    QVERIFY(f.settle());
    QVERIFY(f.job().trace.rules.tangent);
    QVERIFY(f.find<QCheckBox>("exact:tangent")->isChecked());
  }

  void countsFollowTheSettings() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.jpg")));
    const QString before = f.find<QLabel>("segmentCounts")->text();
    QVERIFY2(before.contains("nodes") && before.contains("arcs"), qPrintable(before));
    f.session().edit("t", {}, [](job::Job& job) { job.trace.tolerancePx = 3; });
    QVERIFY(f.settle());
    QVERIFY(f.find<QLabel>("segmentCounts")->text() != before);
  }

  void aReferenceCopyStaysWhileSettingsChange() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.jpg")));
    QVERIFY(!f.window->room<TraceRoom>().actions().dropReference->isEnabled());
    QVERIFY(f.window->room<TraceRoom>().actions().dropReference->toolTip().contains("No reference copy"));
    QTest::keyClick(f.window.get(), Qt::Key_R);
    QVERIFY(f.session().reference() != nullptr);
    const auto kept = f.session().reference();
    const QString counts = f.find<QLabel>("segmentCounts")->text();
    f.session().edit("t", {}, [](job::Job& job) { job.trace.tolerancePx = 3; });
    QVERIFY(f.settle());
    QCOMPARE(f.session().reference(), kept);
    QVERIFY(f.find<QLabel>("referenceCounts")->text().endsWith(counts));
    const QImage with = f.window->bench().grab().toImage();
    f.window->room<TraceRoom>().actions().dropReference->trigger();
    QVERIFY(f.session().reference() == nullptr);
    QVERIFY(f.window->bench().grab().toImage() != with);
    // Another picture has other outlines.
    f.window->room<TraceRoom>().actions().reference->trigger();
    QVERIFY(f.open(demoFile("window-card.png")));
    QVERIFY(f.session().reference() == nullptr);
  }

  void distancesAreShownAndTheLargestIsFound() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.jpg")));
    QSignalSpy measured(&f.session(), &Session::deviationMeasured);
    const QImage plain = f.window->bench().grab().toImage();
    QTest::keyClick(f.window.get(), Qt::Key_D);
    QVERIFY(measured.wait(kPatienceMs));
    QVERIFY(f.window->bench().grab().toImage() != plain);
    QVERIFY(f.find<QLabel>("farthest")->text().contains("px"));
    const auto deviation = measured.at(0).at(0).value<std::shared_ptr<const trace::Deviation>>();
    QVERIFY(deviation && deviation->largest > 0);
    QTest::keyClick(f.window.get(), Qt::Key_G);
    const QPointF seen = f.window->bench().viewport().toScreen(deviation->worst);
    QVERIFY(QRectF(f.window->bench().rect()).contains(seen));
    QVERIFY(f.window->bench().viewport().scale > 10);
    // It is measured anew for other outlines.
    f.session().edit("t", {}, [](job::Job& job) { job.trace.tolerancePx = 2; });
    QVERIFY(measured.wait(kPatienceMs));
    f.window->room<TraceRoom>().actions().deviation->setChecked(false);
    QVERIFY(!f.find<QLabel>("farthest")->isVisible());
  }
};

RIM_TEST(TestTraceStep)

#include "tst_trace_step.moc"
