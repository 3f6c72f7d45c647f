// Pen strokes in the window: what is made of the ink, the chart of widths, healing, ends; undo; the job keeps them.

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QPushButton>

#include "app/steps/mend/mend_room.h"
#include "app/steps/trace/trace_room.h"
#include "app/steps/trace/width_chart.h"
#include "core/mend/find/inspect.h"
#include "support/test_list.h"
#include "window_fixture.h"

using namespace rim;
using namespace rim::app;
using namespace rim::test;

namespace {

struct StrokesFixture : WindowFixture {
  explicit StrokesFixture(const char* demo) {
    QVERIFY(open(demoFile(demo)));
    window->showStep(Step::Trace);
  }
  bool press(const char* name) {
    find<QPushButton>(name)->click();
    return traced();
  }
  bool traced() {
    return QTest::qWaitFor([this] { return session().upToDate() && !session().busy(); }, kPatienceMs);
  }
  std::size_t closed() { return countsOf(pathsOf(*job().tracing)).closed; }
  std::size_t all() { return job().tracing->outlines.size(); }
};

}  // namespace

class TestStrokesStep : public QObject {
  Q_OBJECT

 private slots:
  void theSwallowInThreeClicks() {
    StrokesFixture f("swallow.jpg");
    const std::size_t borders = f.all();
    QVERIFY(!f.find<QDoubleSpinBox>("heal")->isVisible());
    QVERIFY(f.press("method:strokes"));
    QCOMPARE(f.all(), 17U);
    QVERIFY(f.job().tracing->outlines.front().stroke.usual > 8);
    auto* heal = f.find<QDoubleSpinBox>("heal");
    QVERIFY(heal->isVisible());
    heal->setFocus();
    heal->selectAll();
    QTest::keyClicks(heal, "26");
    QTest::keyClick(heal, Qt::Key_Return);
    QVERIFY(f.traced());
    QCOMPARE(f.all(), 14U);
    QCOMPARE(f.closed(), 3U);
    // Every step can be taken back.
    f.window->actions().undo->trigger();
    QVERIFY(f.traced());
    QCOMPARE(f.all(), 17U);
    f.window->actions().undo->trigger();
    QVERIFY(f.traced());
    QCOMPARE(f.all(), borders);
    QVERIFY(f.find<QPushButton>("method:borders")->isChecked());
  }

  void breaksAreProposedInMend() {
    StrokesFixture f("swallow.jpg");
    QVERIFY(f.press("method:strokes"));
    f.window->showStep(Step::Mend);
    QVERIFY(QTest::qWaitFor([&f] { return f.session().findings() && !f.session().busy(); }, kPatienceMs));
    QCOMPARE(f.session().findings()->size(), 5U);
    for (const mend::Finding& finding : *f.session().findings()) QCOMPARE(finding.repair, "bridge");
    f.window->room<MendRoom>().actions().nextFinding->trigger();
    f.window->room<MendRoom>().actions().repairAll->trigger();
    QVERIFY(f.traced());
    QCOMPARE(job::outlinesOf(f.job())->outlines.size(), 14U);
    QCOMPARE(countsOf(pathsOf(*job::outlinesOf(f.job()))).closed, 3U);
    f.window->actions().undo->trigger();
    QVERIFY(f.traced());
    QCOMPARE(job::outlinesOf(f.job())->outlines.size(), 17U);
    QVERIFY(
        QTest::qWaitFor([&f] { return f.window->room<MendRoom>().actions().takeProposals->isEnabled(); }, kPatienceMs));
    f.window->room<MendRoom>().actions().takeProposals->trigger();
    QVERIFY(f.traced());
    QCOMPARE(job::outlinesOf(f.job())->outlines.size(), 14U);
  }

  void nothingIsWrongWithALine() {
    StrokesFixture f("swallow.jpg");
    f.session().edit("", {}, [](job::Job& job) { job.trace.strokes.healPx = 26; });
    QVERIFY(f.press("method:strokes"));
    QVERIFY(mend::inspect(job::drawingOf(f.job()), {}).empty());
  }

  void theWidthIsChosenOnItsChart() {
    StrokesFixture f("badge.png");
    QVERIFY(f.press("method:both"));
    auto* chart = f.find<WidthChart>("widthChart");
    auto* automatic = f.find<QPushButton>("automaticLimit");
    QVERIFY(chart->isVisible() && automatic->isChecked());
    QVERIFY(f.job().strokes && !f.job().strokes->widths.empty());
    // Far right all ink is strokes, far left none is.
    QTest::mouseClick(chart, Qt::LeftButton, {}, QPoint(chart->width() - 12, 20));
    QVERIFY(f.traced());
    QVERIFY(!automatic->isChecked() && f.job().trace.strokes.limitPx > 300);
    const auto strokes = [&f] {
      const auto& outlines = f.job().tracing->outlines;
      return std::count_if(outlines.begin(), outlines.end(), [](const Outline& o) { return o.stroke.usual > 0; });
    };
    QCOMPARE(static_cast<std::size_t>(strokes()), f.all());
    QTest::mouseClick(chart, Qt::LeftButton, {}, QPoint(10, 20));
    QVERIFY(f.traced());
    QVERIFY(strokes() < static_cast<std::ptrdiff_t>(f.all()));
    const double before = chart->limit();
    chart->setFocus();
    QTest::keyClick(chart, Qt::Key_Right);
    QVERIFY(f.traced());
    QVERIFY(chart->limit() > before);
    QTest::mouseClick(chart, Qt::RightButton, {}, QPoint(chart->width() / 2, 20));
    QVERIFY(f.traced());
    QVERIFY(chart->limit() < 10);
    QVERIFY(f.press("automaticLimit"));
    QVERIFY(!f.job().trace.strokes.limitPx);
  }

  void aPartIsSwitchedByAClick() {
    StrokesFixture f("swallow.jpg");
    QAction* tool = f.window->room<TraceRoom>().actions().switchParts;
    QVERIFY(!tool->isEnabled());
    QVERIFY(f.press("method:both"));
    QVERIFY(tool->isEnabled());
    const std::size_t lines = f.all();
    QCOMPARE(f.closed(), 1U);
    f.window->bench().fit();
    QTest::keyClick(&f.window->bench(), Qt::Key_W);
    QVERIFY(tool->isChecked());
    QVERIFY(!f.find<QPushButton>("partsBack")->isVisible());
    // On the eye of the swallow, which is a ring (demo/make_swallow.py).
    const double height = f.job().picture.height();
    const QPoint eye = f.window->bench().viewport().toScreen({541, height - 456}).toPoint();
    QTest::mouseClick(&f.window->bench(), Qt::LeftButton, {}, eye);
    QVERIFY(f.traced());
    QCOMPARE(f.closed(), 2U);  // its border and its hole
    QCOMPARE(f.all(), lines + 1);
    QVERIFY(f.find<QPushButton>("partsBack")->isVisible());
    QTest::mouseClick(&f.window->bench(), Qt::LeftButton, {}, eye);
    QVERIFY(f.traced());
    QCOMPARE(f.all(), lines);
    f.window->actions().undo->trigger();
    QVERIFY(f.traced());
    QCOMPARE(f.all(), lines + 1);
    f.find<QPushButton>("partsBack")->click();
    QVERIFY(f.traced());
    QCOMPARE(f.all(), lines);
    // By keyboard, from where the pointer was.
    f.window->bench().setFocus();
    QTest::keyClick(&f.window->bench(), Qt::Key_Right);
    QTest::keyClick(&f.window->bench(), Qt::Key_Space);
    QVERIFY(f.traced());
    QCOMPARE(f.all(), lines + 1);
    QTest::keyClick(&f.window->bench(), Qt::Key_Escape);
    QVERIFY(!tool->isChecked());
    QVERIFY(f.press("method:strokes"));
    QVERIFY(!tool->isEnabled());
  }

  void endsLieWhereItIsSaid() {
    StrokesFixture f("swallow.jpg");
    QVERIFY(f.press("method:strokes"));
    const double pen = totalLength(pathsOf(*f.job().tracing));
    auto* ends = f.find<QComboBox>("strokeEnds");
    ends->setCurrentIndex(1);
    emit ends->activated(1);
    QVERIFY(f.traced());
    QVERIFY(totalLength(pathsOf(*f.job().tracing)) > pen + 100);
  }

  void thereIsNoDistanceFromABorder() {
    StrokesFixture f("swallow.jpg");
    QVERIFY(f.press("method:strokes"));
    const double scale = f.window->bench().viewport().scale;
    f.window->room<TraceRoom>().actions().worst->trigger();
    QVERIFY(QTest::qWaitFor([&f] { return !f.session().measuring(); }, kPatienceMs));
    QVERIFY(f.find<QLabel>("farthest")->text().contains("no distance"));
    QCOMPARE(f.window->bench().viewport().scale, scale);
    // Borders have one.
    QVERIFY(f.press("method:borders"));
    QVERIFY(QTest::qWaitFor([&f] { return f.find<QLabel>("farthest")->text().contains("Farthest"); }, kPatienceMs));
  }

  void severalInksHaveNoStrokes() {
    WindowFixture f(true);
    QVERIFY(f.open(demoFile("badge.jpg")));
    f.window->showStep(Step::Trace);
    QVERIFY(QTest::qWaitFor([&f] { return f.session().upToDate(); }, kPatienceMs));
    QVERIFY(!f.find<QPushButton>("method:strokes")->isVisible());
  }
};

RIM_TEST(TestStrokesStep)
#include "tst_strokes_step.moc"
