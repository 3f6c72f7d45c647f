// Work beside the window: what it throws is told, what was left is dropped, and nothing waits for what was left.

#include <QSignalSpy>
#include <QTest>
#include <atomic>
#include <condition_variable>
#include <mutex>

#include "app/errand.h"
#include "support/test_list.h"

using rim::app::Errand;
using rim::app::Outcome;

namespace {

/// Work that goes on until it is asked to stop.
int untilStopped(const std::stop_token& stop) {
  std::mutex mutex;
  std::condition_variable_any never;
  std::unique_lock lock(mutex);
  never.wait(lock, stop, [] { return false; });
  return 1;
}

}  // namespace

class TestErrand : public QObject {
  Q_OBJECT

 private slots:
  void theResultComesInTheWindowsThread() {
    Errand errand;
    int result = 0;
    QThread* where = nullptr;
    errand.begin(
        this, [](const std::stop_token&) { return 7; },
        [&](const Outcome<int>& got) {
          result = got.result;
          where = QThread::currentThread();
        });
    QVERIFY(errand.running());
    QVERIFY(QTest::qWaitFor([&] { return result == 7; }));
    QCOMPARE(where, thread());
    QVERIFY(!errand.running());
  }

  void whatIsThrownIsTold() {
    Errand errand;
    QString trouble;
    const auto take = [&](const Outcome<int>& got) { trouble = got.trouble; };
    errand.begin(
        this, [](const std::stop_token&) -> int { throw std::runtime_error("the sheet is wet."); }, take);
    QVERIFY(QTest::qWaitFor([&] { return trouble == "the sheet is wet."; }));
    errand.begin(
        this, [](const std::stop_token&) -> int { throw std::bad_alloc(); }, take);
    QVERIFY(QTest::qWaitFor([&] { return trouble.contains("memory"); }));
  }

  void sixThatWereLeftHoldUpNothing() {
    Errand loading;
    Errand saving;
    std::atomic<int> taken = 0;
    for (int i = 0; i < 6; ++i) loading.begin(this, untilStopped, [&](const Outcome<int>&) { ++taken; });
    bool saved = false;
    saving.begin(
        this, [](const std::stop_token&) { return true; }, [&](const Outcome<bool>& got) { saved = got.result; });
    QVERIFY(QTest::qWaitFor([&] { return saved; }));
    loading.leave();
    QVERIFY(!loading.running());
    QCOMPARE(taken.load(), 0);
  }

  void endingInTheMiddleAsksItToStop() {
    auto errand = std::make_unique<Errand>();
    bool taken = false;
    errand->begin(this, untilStopped, [&](const Outcome<int>&) { taken = true; });
    errand.reset();  // would wait for ever if the work were not asked to stop
    QCoreApplication::processEvents();
    QVERIFY(!taken);
  }
};

RIM_TEST(TestErrand)
#include "tst_errand.moc"
