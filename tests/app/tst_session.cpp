// Work beside the window: overtaking, cancelling, closing in the middle of it.

#include <random>

#include "support/test_list.h"
#include "window_fixture.h"

using namespace rim;
using namespace rim::app;
using namespace rim::test;

namespace {

/// Takes seconds to trace: noise everywhere.
QString slowPicture(const QTemporaryDir& folder) {
  QImage image(1500, 1500, QImage::Format_Grayscale8);
  std::mt19937 random(5);
  for (int y = 0; y < image.height(); ++y) {
    for (int x = 0; x < image.width(); ++x) image.scanLine(y)[x] = static_cast<uchar>(random() % 256);
  }
  const QString file = folder.filePath("slow.png");
  image.save(file);
  return file;
}

}  // namespace

class TestSession : public QObject {
  Q_OBJECT

 private slots:
  void aNewerSettingOvertakes() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    for (int level = 60; level < 160; ++level) {
      f.session().edit("t", "t", [level](job::Job& job) { job.trace.threshold = level; });
    }
    QVERIFY(f.settle());
    QCOMPARE(f.job().threshold, 159);
    QCOMPARE(f.session().shown().tracing, f.job().tracing);
  }

  /// What came of far steps is let go; going back to them works it out again.
  void stepsWithoutResultsAreWorkedOutAgain() {
    Session session(nullptr, {300, 1000, 1'000'000'000});
    session.setOpensInInks(false);
    const auto settled = [&] { return QTest::qWaitFor([&] { return !session.busy(); }, kPatienceMs); };
    const QTemporaryDir folder;
    QImage image(80, 80, QImage::Format_Grayscale8);
    image.fill(Qt::white);
    for (int y = 20; y < 60; ++y) std::fill_n(image.scanLine(y) + 20, 40, uchar{0});
    QVERIFY(image.save(folder.filePath("square.png")));
    session.open(folder.filePath("square.png"));
    QVERIFY(settled());
    session.edit("thicker", {}, [](job::Job& job) { job.preparation.push_back({picture::Thicken{1}}); });
    QVERIFY(settled());
    const std::size_t outlines = session.job().tracing->outlines.size();
    for (int level = 60; level < 66; ++level) {
      session.edit("t", {}, [level](job::Job& job) { job.trace.threshold = level; });
      QVERIFY(settled());
    }
    for (int level = 64; level >= 60; --level) {
      session.undo();
      QVERIFY(settled());
      QCOMPARE(session.job().threshold, level);
      QVERIFY(!session.job().picture.empty());
    }
    session.undo();
    QVERIFY(session.busy());
    QVERIFY(settled());
    QVERIFY(!session.job().trace.threshold);
    QCOMPARE(session.job().tracing->outlines.size(), outlines);
    // Cancelled on the way, it goes to the nearest step that is known.
    session.redo();
    QVERIFY(settled());
    session.redo();
    session.redo();
    session.redo();
    session.cancel();
    QVERIFY(session.upToDate() && session.job().trace.threshold.has_value());
  }

  void cancellingKeepsWhatWasThere() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    const auto tracing = f.job().tracing;
    QSignalSpy borders(&f.session(), &Session::bordersFollowed);
    f.window->openFile(slowPicture(f.folder));
    QVERIFY(borders.wait(kPatienceMs));
    QTest::keyClick(&f.window->bench(), Qt::Key_Escape);
    QVERIFY(!f.session().busy());
    QCOMPARE(f.job().picture.name, std::string("badge.png"));
    QCOMPARE(f.job().tracing, tracing);
  }

  void aLargePictureIsPreviewedBeforeItIsWorkedOut() {
    WindowFixture f;
    QImage image(4000, 3000, QImage::Format_Grayscale8);
    image.fill(Qt::white);
    for (int y = 1000; y < 2000; ++y) std::fill_n(image.scanLine(y) + 1000, 2000, uchar{0});
    const QString file = f.folder.filePath("large.png");
    image.save(file);
    QVERIFY(f.open(file));
    int previews = 0;
    bool early = true;
    QObject::connect(&f.session(), &Session::previewed, [&](const std::shared_ptr<const picture::Preview>& preview) {
      ++previews;
      early = early && f.job().picture.empty() && preview->picture.width() <= picture::PreviewMaker::kLongerSidePx;
    });
    const Viewport before = f.window->bench().viewport();
    for (int px = 1; px <= 20; ++px) {
      f.session().edit("t", "t", [px](job::Job& job) { job.preparation = {{picture::Thicken{double(px)}, true}}; });
    }
    QVERIFY(f.settle());
    QVERIFY(previews >= 1 && early);
    QCOMPARE(f.job().picture.width(), 4000);
    QCOMPARE(f.window->bench().viewport().scale, before.scale);
    // Thickened by 20 px, the block is 2020 px wide.
    QVERIFY(qAbs(boxOf(pathsOf(*f.job().tracing)).width() - 2020) < 0.5);
  }

  void theNewestPictureWins() {
    WindowFixture f;
    f.window->openFile(slowPicture(f.folder));
    f.window->openFile(demoFile("badge.png"));
    QVERIFY(f.settle());
    QCOMPARE(f.job().picture.name, std::string("badge.png"));
    QVERIFY(f.session().upToDate());
  }

  void closingInTheMiddleOfWorkEndsAtOnce() {
    auto f = std::make_unique<WindowFixture>();
    QSignalSpy borders(&f->session(), &Session::bordersFollowed);
    f->window->openFile(slowPicture(f->folder));
    QVERIFY(borders.wait(kPatienceMs));
    QElapsedTimer clock;
    clock.start();
    f->window.reset();
    QVERIFY2(clock.elapsed() < 10'000, qPrintable(QString::number(clock.elapsed())));
  }

  void undoDuringATraceShowsTheOlderOutlinesAtOnce() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    const auto tracing = f.job().tracing;
    f.session().edit("t", {}, [](job::Job& job) { job.trace.threshold = 90; });
    QVERIFY(!f.session().upToDate());
    f.session().undo();
    QVERIFY(!f.session().busy());
    QCOMPARE(f.job().tracing, tracing);
    QTest::qWait(100);  // what was overtaken does not come back
    QCOMPARE(f.job().tracing, tracing);
    f.session().redo();
    QVERIFY(f.settle());
    QCOMPARE(f.job().threshold, 90);
  }

  void aChangeThatChangesNothingIsNoStep() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    const QString name = f.session().history().undoName();
    f.session().edit("nothing", {}, [](job::Job&) {});
    QCOMPARE(f.session().history().undoName(), name);
  }
};

RIM_TEST(TestSession)
#include "tst_session.moc"
