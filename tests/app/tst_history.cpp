#include <QTest>

#include "app/history.h"
#include "core/job/stages.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
using rim::app::History;
using rim::app::HistoryLimits;

namespace {

job::Job jobWith(int threshold) {
  job::Job job;
  job.trace.threshold = threshold;
  return job;
}

int thresholdOf(const History& history) { return history.job().trace.threshold.value_or(-1); }

}  // namespace

class TestHistory : public QObject {
  Q_OBJECT

 private slots:
  void stepsAreTakenBackAndDoneAgain() {
    History h;
    h.edit(jobWith(1), "one");
    h.edit(jobWith(2), "two");
    QCOMPARE(h.undoName(), "two");
    QVERIFY(h.before() != nullptr && h.before()->trace == jobWith(1).trace);
    h.undo();
    QCOMPARE(thresholdOf(h), 1);
    QCOMPARE(h.undoName(), "one");
    QCOMPARE(h.redoName(), "two");
    h.redo();
    QCOMPARE(thresholdOf(h), 2);
    QVERIFY(!h.canRedo());
    h.undo();
    h.undo();
    QCOMPARE(thresholdOf(h), -1);
    QVERIFY(!h.canUndo());
    QVERIFY(h.before() == nullptr);
    h.undo();
    QCOMPARE(thresholdOf(h), -1);
  }

  void aDragIsOneStep() {
    History h;
    for (int level = 1; level < 50; ++level) h.edit(jobWith(level), "Move threshold", "threshold");
    h.undo();
    QCOMPARE(thresholdOf(h), -1);
  }

  void sealingBeginsANewStep() {
    History h;
    h.edit(jobWith(1), "Move threshold", "threshold");
    h.seal();
    h.edit(jobWith(2), "Move threshold", "threshold");
    h.undo();
    QCOMPARE(thresholdOf(h), 1);
  }

  void anotherSettingBeginsANewStep() {
    History h;
    h.edit(jobWith(1), "a", "a");
    h.edit(jobWith(2), "b", "b");
    h.edit(jobWith(3), "a", "a");
    h.undo();
    QCOMPARE(thresholdOf(h), 2);
  }

  void aNewStepForgetsWhatCouldBeRedone() {
    History h;
    h.edit(jobWith(1), "a", "k");
    h.edit(jobWith(2), "b");
    h.undo();
    h.edit(jobWith(3), "c", "k");
    QVERIFY(!h.canRedo());
    h.undo();
    QCOMPARE(thresholdOf(h), 1);
  }

  void completingIsNoStep() {
    History h;
    h.edit(jobWith(1), "a");
    job::Job done = h.job();
    done.tracing = std::make_shared<const Drawing>();
    h.complete(done);
    QVERIFY(h.job().tracing);
    h.undo();
    QVERIFY(!h.job().tracing);
    h.redo();
    QVERIFY(h.job().tracing);
  }

  void onlySoManyStepsAreKept() {
    History h;
    for (int i = 0; i < 1000; ++i) h.edit(jobWith(i), "a");
    int steps = 0;
    for (; h.canUndo(); h.undo()) ++steps;
    QCOMPARE(steps, int(HistoryLimits{}.steps) - 1);
  }

  void picturesThatWereOpenedBoundTheSteps() {
    History h({300, 1000, 10'000'000});
    for (int i = 0; i < 20; ++i) h.edit(job::jobOn(test::pictureOf(cv::Mat(500, 500, CV_8UC1, cv::Scalar(i)))), "open");
    int steps = 0;
    for (; h.canUndo(); h.undo()) ++steps;
    QVERIFY2(steps >= 8 && steps <= 10, qPrintable(QString::number(steps)));
  }

  void theNearestOutlinesAreFound() {
    const auto traced = [](int number) {
      job::Job job = jobWith(number);
      job.original = test::pictureOf(cv::Mat(5, 5, CV_8UC1, cv::Scalar(number)));
      job.tracing = std::make_shared<const Drawing>();
      return job::withKeys(job, job::StageKind::Trace);
    };
    History h;
    h.edit(traced(1), "one");
    h.edit(jobWith(2), "two");
    h.edit(traced(3), "three");
    h.undo();
    h.goToOutlines();
    QCOMPARE(thresholdOf(h), 1);  // backwards first
    h.undo();
    h.goToOutlines();
    QCOMPARE(thresholdOf(h), 1);  // else forwards
    History none;
    none.edit(jobWith(1), "one");
    none.goToOutlines();
    QVERIFY(!none.canUndo());
  }

  void outlinesAndLabelsCountAsWellAsPictures() {
    // Outlines of 120 MB a step: all steps stay, a few with their outlines.
    const auto heavy = [](int number) {
      job::Job job = jobWith(number);
      job.tracing = std::make_shared<const Drawing>(
          makeDrawing({Path{{}, std::vector<Segment>(120'000'000 / sizeof(Segment)), true}}));
      return job;
    };
    History h;
    for (int i = 0; i < 20; ++i) h.edit(heavy(i), "a");
    QVERIFY(h.job().tracing && h.before()->tracing);
    int steps = 0;
    int outlines = 0;
    for (; h.canUndo(); h.undo(), ++steps) {
      QCOMPARE(thresholdOf(h), 19 - steps);
      outlines += h.job().tracing ? 1 : 0;
    }
    QCOMPARE(steps, 20);
    QVERIFY2(outlines >= 2 && outlines <= 4, qPrintable(QString::number(outlines)));
    // What steps share counts once.
    History shared;
    job::Job job = heavy(0);
    for (int i = 0; i < 50; ++i) {
      job.trace.threshold = i;
      shared.edit(job, "a");
    }
    for (steps = 0; shared.canUndo(); shared.undo(), ++steps) QVERIFY(shared.job().tracing);
    QCOMPARE(steps, 50);
    // Label maps and brush strokes are held, too.
    job::Job inks;
    colour::InkMap map{{}, std::make_shared<const cv::Mat>(1000, 1000, CV_8UC1)};
    inks.inks = std::make_shared<const colour::InkMap>(map);
    picture::BrushStroke stroke;
    stroke.places.resize(100'000);
    inks.preparation = {{picture::TouchUp{{stroke}}}};
    std::size_t bytes = 0;
    for (const job::HeldBytes& held : job::heldBy(inks)) bytes += held.bytes;
    QVERIFY(bytes >= 1'000'000 + 100'000 * sizeof(Point));
  }
};

RIM_TEST(TestHistory)
#include "tst_history.moc"
