// The book of actions: no key says two things, a step's letters are its own, and all of it is on one page.

#include <QTextBrowser>

#include "app/action_book.h"
#include "support/test_list.h"
#include "window_fixture.h"

using namespace rim::app;
using namespace rim::test;

namespace {

QList<QKeySequence> key(const char* name) { return {QKeySequence(QString::fromLatin1(name))}; }

}  // namespace

class TestActionBook : public QObject {
  Q_OBJECT

 private slots:
  void noKeyOfTheWindowSaysTwoThings() {
    WindowFixture f;
    QCOMPARE(f.window->book().clashes(), QStringList());
  }

  void clashesAreFound() {
    QObject owner;
    ActionBook book(&owner);
    book.add(Step::Picture, "one", "", key("M"));
    book.add(Step::Mend, "two", "", key("M"));
    QVERIFY(book.clashes().isEmpty());  // another step, another meaning
    book.add(kEverywhere, "three", "", key("M"));
    QCOMPARE(book.clashes().size(), 2);
    book.add(Step::Trace, "four", "", key("Ctrl+T"));
    book.add(Step::Mend, "five", "", key("Ctrl+T"));  // keys with Ctrl never sleep
    QCOMPARE(book.clashes().size(), 3);
    QVERIFY(book.clashes().last().contains("Ctrl+T"));
  }

  void aStepsLettersSleepInTheOthers() {
    QObject owner;
    ActionBook book(&owner);
    const QAction* mend = book.add(Step::Mend, "mend", "", {QKeySequence("S"), QKeySequence("Ctrl+M")});
    const QAction* fit = book.add(kEverywhere, "fit", "", key("F"));
    book.enter(Step::Trace);
    QCOMPARE(mend->shortcuts(), key("Ctrl+M"));
    QCOMPARE(fit->shortcuts(), key("F"));
    book.enter(Step::Mend);
    QCOMPARE(mend->shortcuts().size(), 2);
  }

  void lettersWorkInTheirStepOnly() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    f.window->showStep(Step::Mend);
    QTest::keyClick(&f.window->bench(), Qt::Key_L);
    QVERIFY(!f.job().trace.lightIsInk);
    f.window->showStep(Step::Trace);
    f.session().edit("two tones", {}, [](rim::job::Job& job) { job.colours.on = false; });
    QVERIFY(f.settle());
    QTest::keyClick(&f.window->bench(), Qt::Key_L);
    QVERIFY(f.job().trace.lightIsInk);
  }

  void allKeysAreOnOnePage() {
    WindowFixture f;
    f.window->showStep(Step::Mend);
    QTest::keyClick(f.window.get(), Qt::Key_F1);
    const auto* page = f.find<QTextBrowser>("keysPage");
    QVERIFY(page != nullptr && page->isVisible());
    const QString text = page->toPlainText();
    QVERIFY(text.startsWith("In Mend"));
    for (const QAction* action : f.window->findChildren<QAction*>()) {
      if (action->shortcuts().isEmpty()) continue;
      QVERIFY2(text.contains(action->shortcuts().first().toString(QKeySequence::NativeText)),
               qPrintable(action->text()));
    }
    QVERIFY(text.contains("P, held"));
    QTest::keyClick(page->window(), Qt::Key_Escape);
    QTRY_VERIFY_WITH_TIMEOUT(f.find<QTextBrowser>("keysPage") == nullptr, kPatienceMs);
  }
};

RIM_TEST(TestActionBook)
#include "tst_action_book.moc"
