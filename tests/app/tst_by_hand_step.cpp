#include <QClipboard>
#include <QLabel>
#include <QMimeData>
#include <QPushButton>

#include "app/steps/refine/refine_panel.h"
#include "app/steps/refine/refine_room.h"
#include "core/geometry/path_place.h"
#include "core/geometry/segment.h"
#include "core/io/job/job_file.h"
#include "refine_fixture.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;
using namespace rim::app;

namespace {

/// A window on a square of 40 mm, an open line and an open arc.
Drawing square() {
  return makeDrawing({polygonThrough({{0, 0}, {40, 0}, {40, 40}, {0, 40}}),
                      Path{{60, 0}, {Segment::line({85, 0})}, false},
                      Path{{100, 40}, {Segment::line({100, 12})}, false}});
}

struct HandFixture : RefineFixture {
  HandFixture() : RefineFixture(square()) {}
  NodeTool& nodes() { return hand().noding(); }
  bool near(Point a, Point b) { return distance(a, b) < 1; }
};

}  // namespace

class TestByHandStep : public QObject {
  Q_OBJECT

 private slots:
  void nodesAreDraggedAndNudged() {
    HandFixture f;
    f.key(Qt::Key_6);
    f.click({20, 0});  // on the border: it is taken hold of
    QVERIFY(f.nodes().outline().has_value());
    f.click({0, 0});
    QCOMPARE(f.nodes().nodes().size(), 1U);
    f.drag({0, 0}, {-8, -6});
    QVERIFY(f.done());
    QCOMPARE(f.job().refine.size(), 1U);
    QVERIFY(f.near(boxOf(f.now().path(0)).low, {-8, -6}));
    const Point before = boxOf(f.now().path(0)).low;
    // Three keys that come at once are three steps, and one for undo.
    f.key(Qt::Key_Left);
    f.key(Qt::Key_Left);
    f.key(Qt::Key_Down, Qt::ShiftModifier);
    QVERIFY(f.done());
    const Point nudged = boxOf(f.now().path(0)).low;
    QVERIFY2(std::abs(nudged.x - before.x + 0.2) < 1e-6 && std::abs(nudged.y - before.y + 1) < 1e-6,
             qPrintable(QStringLiteral("%1 %2").arg(nudged.x - before.x).arg(nudged.y - before.y)));
    QCOMPARE(f.job().refine.size(), 1U);
    f.window->actions().undo->trigger();
    QVERIFY(f.done());
    QCOMPARE(boxOf(f.now().path(0)).low, before);
    f.window->actions().undo->trigger();
    QVERIFY(f.done());
    QVERIFY(f.job().refine.empty());
    QVERIFY(f.near(boxOf(f.nodes().path()).low, {0, 0}));
  }

  void segmentsAreBentAndChanged() {
    HandFixture f;
    f.key(Qt::Key_6);
    f.click({20, 0});
    f.click({20, 0});
    QCOMPARE(f.nodes().segments().size(), 1U);
    const std::size_t which = *f.nodes().segments().begin();
    f.key(Qt::Key_A);
    QVERIFY(f.done());
    QCOMPARE(f.now().path(0).segments[which].kind, SegmentKind::Arc);
    // Pulled at its middle it goes through the pointer.
    const Point middle = pointAt(pieceOf(f.now().path(0), which), 0.5);
    f.drag(middle, {20, -6});
    QVERIFY(f.done());
    QVERIFY(nearestOn(f.now().path(0), {20, -6}).off < 0.5);
    f.key(Qt::Key_C);
    QVERIFY(f.done());
    QCOMPARE(f.now().path(0).segments[which].kind, SegmentKind::Cubic);
    // Its handles show, and can be dragged.
    const Point handle = f.now().path(0).segments[which].handle1;
    f.drag(handle, handle + Point{-5, -5});
    QVERIFY(f.done());
    QVERIFY(f.near(f.now().path(0).segments[which].handle1, handle + Point{-5, -5}));
    f.key(Qt::Key_L);
    QVERIFY(f.done());
    QCOMPARE(f.now().path(0).segments[which].kind, SegmentKind::Line);
  }

  void nodesComeAndGo() {
    HandFixture f;
    f.key(Qt::Key_6);
    f.click({20, 0});
    QTest::mouseDClick(&f.window->bench(), Qt::LeftButton, {}, f.onScreen({30, 0}));
    QTest::mouseRelease(&f.window->bench(), Qt::LeftButton, {}, f.onScreen({30, 0}));
    QVERIFY(f.done());
    QCOMPARE(f.now().path(0).segments.size(), 5U);
    QCOMPARE(f.nodes().nodes().size(), 1U);
    f.key(Qt::Key_Delete);
    QVERIFY(f.done());
    QCOMPARE(f.now().path(0).segments.size(), 4U);
    QVERIFY2(f.nodes().hint().contains("0.000 mm"), qPrintable(f.nodes().hint()));
    // A box round two corners; both out, nothing is enclosed: refused, nothing lost.
    f.drag({-5, -5}, {45, 5});
    QCOMPARE(f.nodes().nodes().size(), 2U);
    f.key(Qt::Key_Delete);
    QVERIFY(f.done());
    QVERIFY(f.window->sentence().contains("enclose nothing"));
    QCOMPARE(f.now().path(0).segments.size(), 4U);
    // The side between them out: the outline is open.
    f.key(Qt::Key_Delete, Qt::ShiftModifier);
    QVERIFY(f.done());
    QVERIFY(!f.now().path(0).closed);
    f.key(Qt::Key_J);
    QVERIFY(f.done());
    QVERIFY(f.now().path(0).closed);
  }

  void cornersSmoothNodesAndOrder() {
    HandFixture f;
    f.key(Qt::Key_6);
    f.click({20, 0});
    f.click({40, 0});
    const std::size_t node = *f.nodes().nodes().begin();
    f.key(Qt::Key_S);
    QVERIFY(f.done());
    QVERIFY(refine::isSmooth(f.now().path(0), node));
    f.key(Qt::Key_K);
    QVERIFY(f.done());
    QVERIFY(!refine::isSmooth(f.now().path(0), node));
    f.key(Qt::Key_H);
    QVERIFY(f.done());
    QVERIFY(f.near(f.now().path(0).start, {40, 0}));
    const double area = signedArea(f.now().path(0));
    f.key(Qt::Key_R);
    QVERIFY(f.done());
    QVERIFY(std::abs(signedArea(f.now().path(0)) + area) < 1e-6);
    f.click(f.now().path(0).start);
    f.key(Qt::Key_X);
    QVERIFY(f.done());
    QVERIFY(!f.now().path(0).closed);
    // Esc lets go of one thing after the other.
    QVERIFY(f.nodes().outline().has_value());
    f.key(Qt::Key_Escape);
    f.key(Qt::Key_Escape);
    QVERIFY(!f.nodes().outline().has_value());
  }

  void endsMeet() {
    HandFixture f;
    f.key(Qt::Key_7);
    f.click({85, 0});
    QTest::mouseMove(&f.window->bench(), f.onScreen({100, 12}));
    QCOMPARE(f.now().outlines.size(), 3U);
    f.click({100, 12});
    QVERIFY(f.done());
    QCOMPARE(f.now().outlines.size(), 2U);
    const Path corner = f.now().path(1);
    QCOMPARE(corner.segments.size(), 2U);
    QVERIFY2(distance(corner.segments[0].end, {100, 0}) < 1e-6, "where both lines lead");
    f.window->actions().undo->trigger();
    QVERIFY(f.done());
    QCOMPARE(f.now().outlines.size(), 3U);
    f.click({85, 0});
    f.key(Qt::Key_Escape);
    f.click({100, 12}, Qt::ControlModifier);
    f.click({85, 0}, Qt::ControlModifier);
    QVERIFY(f.done());
    QCOMPARE(f.now().outlines.size(), 2U);
  }

  void brushesRebuildACorner() {
    Path worn = polygonThrough({{0, 0}, {36, 0}, {38.5, 1}, {40, 4}, {40, 40}, {0, 40}});
    RefineFixture f(makeDrawing({worn}));
    QTest::keyClick(&f.window->bench(), Qt::Key_8);
    f.drag({36.5, 0.2}, {39.8, 4.2});
    QVERIFY(f.done());
    QCOMPARE(f.now().path(0).segments.size(), 4U);
    QVERIFY(std::abs(std::abs(signedArea(f.now().path(0))) - 1600) < 0.01);
    // Where nothing is, nothing is done, and that is said.
    f.drag({20, 20}, {22, 20});
    QCOMPARE(f.job().refine.size(), 1U);
    QVERIFY(f.hand().tool().hint().contains("No outline"));
    // The other brush makes a stretch smooth.
    QTest::keyClick(&f.window->bench(), Qt::Key_9);
    f.drag({38, 0}, {40, 3});
    QVERIFY(f.done());
    QVERIFY(f.now().path(0).segments.size() > 4U);
  }

  void outlinesAreCopiedAndPasted() {
    HandFixture f;
    f.click({20, 20});
    f.key(Qt::Key_D, Qt::ControlModifier);
    QVERIFY(f.done());
    QCOMPARE(f.now().outlines.size(), 4U);
    QCOMPARE(f.hand().selecting().chosen().size(), 1U);
    QCOMPARE(*f.hand().selecting().chosen().begin(), f.now().outlines[3].id);
    f.key(Qt::Key_X, Qt::ControlModifier);
    QVERIFY(f.done());
    QCOMPARE(f.now().outlines.size(), 3U);
    QVERIFY(QApplication::clipboard()->text().contains("<svg"));
    f.key(Qt::Key_V, Qt::ControlModifier);
    QVERIFY(f.done());
    QCOMPARE(f.now().outlines.size(), 4U);
    const Box box = boxOf(f.now().path(3));
    QVERIFY2(std::abs(box.width() - 40) < 1e-3 && std::abs(box.low.x - 2) < 1e-3, "as large as it was, where it was");
    // What is no drawing is refused; nothing is lost.
    QApplication::clipboard()->setText("<svg this is none");
    f.key(Qt::Key_V, Qt::ControlModifier);
    QVERIFY(f.done());
    QVERIFY(f.window->sentence().contains("cannot be pasted"));
    QCOMPARE(f.now().outlines.size(), 4U);
  }

  void whatWasMadeByHandIsInTheJob() {
    HandFixture f;
    f.key(Qt::Key_6);
    f.click({20, 0});
    f.click({0, 0});
    f.drag({0, 0}, {-8, -6});
    QVERIFY(f.done());
    f.key(Qt::Key_5);
    f.click({20, 20});
    f.key(Qt::Key_D, Qt::ControlModifier);
    QVERIFY(f.done());
    const QString file = f.folder.filePath("hand.snugrim");
    f.session().saveTo(file);
    QVERIFY(f.settle());
    const job::Job again = io::loadJob(file.toStdString());
    QVERIFY(again.refine == f.job().refine);
    QVERIFY(f.window->findChild<QLabel*>("chosen")->text().contains("1 outline"));
  }

  /// Traced anew, what was made by hand stays; that is said, and it can be let go.
  void whatIsKeptOverANewTraceIsSaid() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.jpg")));
    f.window->showStep(Step::Refine);
    QVERIFY(QTest::qWaitFor([&f] { return f.session().upToDate(); }, kPatienceMs));
    const auto traced = job::outlinesOf(f.job());
    const Outline first = *std::max_element(
        traced->outlines.begin(), traced->outlines.end(),
        [](const Outline& a, const Outline& b) { return a.path().segments.size() < b.path().segments.size(); });
    f.session().edit("By hand", {}, [&first](job::Job& job) {
      job.refine = refine::withHandwork({}, {refine::madeByHand(markOf(first), {scaled(first.path(), 1, {5, 0})})});
    });
    QVERIFY(QTest::qWaitFor([&f] { return f.session().upToDate(); }, kPatienceMs));
    QTest::qWait(1);
    QVERIFY(!f.find<QLabel>("keptByHand")->isVisible());
    f.session().edit("Smoothness", {}, [](job::Job& job) { job.trace.tolerancePx = 1.5; });
    QVERIFY(QTest::qWaitFor([&f] { return f.session().upToDate(); }, kPatienceMs));
    QTRY_VERIFY_WITH_TIMEOUT(f.find<QLabel>("keptByHand")->isVisible(), kPatienceMs);
    QVERIFY(f.find<QLabel>("keptByHand")->text().contains("1 outline "));
    f.find<QPushButton>("keptByHandLook")->click();
    f.find<QPushButton>("keptByHandLetGo")->click();
    QTRY_VERIFY_WITH_TIMEOUT(f.job().refine.empty() && !f.find<QLabel>("keptByHand")->isVisible(), kPatienceMs);
    QVERIFY(QTest::qWaitFor([&f] { return f.session().upToDate(); }, kPatienceMs));
    f.window->actions().undo->trigger();
    QTRY_VERIFY_WITH_TIMEOUT(f.find<QLabel>("keptByHand")->isVisible(), kPatienceMs);
    f.find<QPushButton>("keptByHandRight")->click();
    QVERIFY(!f.find<QLabel>("keptByHand")->isVisible() && f.job().refine.size() == 1);
  }

  /// What was deleted and comes back as another outline is told, and led to; then it may be forgotten, or left so.
  void whatWasDeletedAndIsBackIsSaid() {
    WindowFixture f;
    QImage picture(200, 120, QImage::Format_Grayscale8);
    picture.fill(255);
    QPainter painter(&picture);
    painter.fillRect(10, 40, 30, 30, Qt::black);
    painter.fillRect(60, 40, 30, 30, Qt::black);
    painter.fillRect(90, 40, 60, 30, QColor(150, 150, 150));
    painter.end();
    const QString file = f.folder.filePath("tail.png");
    QVERIFY(picture.save(file) && f.open(file));
    const auto tracedAt = [&f](int threshold) {
      f.session().edit("Threshold", {}, [threshold](job::Job& job) { job.trace.threshold = threshold; });
      return QTest::qWaitFor([&f] { return f.session().upToDate(); }, kPatienceMs);
    };
    QVERIFY(tracedAt(100));
    f.window->showStep(Step::Refine);
    const auto traced = job::outlinesOf(f.job());
    QCOMPARE(traced->outlines.size(), 2U);
    const bool firstIsRight = boxOf(traced->path(0)).low.x > 50;
    const OutlineMark mark = markOf(traced->outlines[firstIsRight ? 0 : 1]);
    f.session().edit("Delete", {}, [&mark](job::Job& job) { job.refine.push_back(refine::Remove{{mark}}); });
    QVERIFY(QTest::qWaitFor([&f] { return f.session().upToDate(); }, kPatienceMs));
    QCOMPARE(job::outlinesOf(f.job())->outlines.size(), 1U);
    auto* told = f.find<QLabel>("lostByHand");
    QVERIFY(!told->isVisible());
    QVERIFY(tracedAt(200));
    QCOMPARE(job::outlinesOf(f.job())->outlines.size(), 2U);
    QTRY_VERIFY_WITH_TIMEOUT(told->isVisible() && told->text().startsWith("1 outline "), kPatienceMs);
    QSignalSpy looked(f.window->findChild<RefinePanel*>(), &RefinePanel::lookedAt);
    f.find<QPushButton>("lostByHandLook")->click();
    QCOMPARE(looked.size(), 1);
    QVERIFY(distance(looked[0][0].value<Point>(), mark.middle) < 1e-9);
    f.find<QPushButton>("lostByHandLetGo")->click();
    QTRY_VERIFY_WITH_TIMEOUT(f.job().refine.empty() && !told->isVisible(), kPatienceMs);
    f.window->actions().undo->trigger();
    QTRY_VERIFY_WITH_TIMEOUT(told->isVisible(), kPatienceMs);
    // Set as it was, it is deleted as it was.
    QVERIFY(tracedAt(100));
    QTRY_VERIFY_WITH_TIMEOUT(!told->isVisible(), kPatienceMs);
    QCOMPARE(job::outlinesOf(f.job())->outlines.size(), 1U);
  }

  void whatOnlyOneToolCanDoSleepsWithTheOthers() {
    HandFixture f;
    const HandActions& hand = f.window->room<RefineRoom>().actions().hand;
    QVERIFY(!hand.line->isEnabled() && !hand.smooth->isEnabled() && !hand.duplicate->isEnabled());
    f.click({20, 20});
    QVERIFY(hand.duplicate->isEnabled() && !hand.line->isEnabled());
    f.key(Qt::Key_6);
    QVERIFY(!hand.duplicate->isEnabled());
    f.key(Qt::Key_Space);
    QVERIFY(hand.smooth->isEnabled() && !hand.level->isEnabled());
    f.window->room<RefineRoom>().actions().chooseAll->trigger();
    QVERIFY(hand.level->isEnabled() && hand.spread->isEnabled());
    QCOMPARE(f.window->book().clashes(), QStringList());
  }
};

RIM_TEST(TestByHandStep)
#include "tst_by_hand_step.moc"
