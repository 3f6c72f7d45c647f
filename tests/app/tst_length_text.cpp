#include <QTest>
#include <limits>

#include "app/widgets/length_text.h"
#include "support/test_list.h"

using namespace rim::app;

class TestLengthText : public QObject {
  Q_OBJECT

 private slots:
  void lengthsAreUnderstood_data() {
    QTest::addColumn<QString>("text");
    QTest::addColumn<bool>("inches");
    QTest::addColumn<double>("mm");
    QTest::newRow("whole") << "120" << false << 120.0;
    QTest::newRow("point") << "120.5" << false << 120.5;
    QTest::newRow("comma") << " 120,5 " << false << 120.5;
    QTest::newRow("bare in inches") << "2" << true << 50.8;
    QTest::newRow("inches behind") << "2 in" << false << 50.8;
    QTest::newRow("inch mark") << "2\"" << false << 50.8;
    QTest::newRow("mm while in inches") << "80mm" << true << 80.0;
    QTest::newRow("cm") << "2.5 cm" << true << 25.0;
    QTest::newRow("fraction") << "1/2 in" << false << 12.7;
    QTest::newRow("mixed") << "3 1/2" << true << 88.9;
    QTest::newRow("point first") << ".5" << false << 0.5;
  }
  void lengthsAreUnderstood() {
    QFETCH(QString, text);
    QFETCH(bool, inches);
    QFETCH(double, mm);
    const auto got = millimetresFrom(text, inches ? Unit::Inch : Unit::Millimetre);
    QVERIFY(got.has_value());
    QCOMPARE(*got, mm);
  }

  void otherTextIsRefused_data() {
    QTest::addColumn<QString>("text");
    for (const char* text : {"", " ", "abc", "-5", "12 5", "1/0", "5 ft", "nan", "inf", "1e3", "2 3 4", "5,5,5"}) {
      QTest::newRow(text) << QString(text);
    }
  }
  void otherTextIsRefused() {
    QFETCH(QString, text);
    QVERIFY(!millimetresFrom(text, Unit::Millimetre).has_value());
  }

  void whatIsShownIsReadBackToAMicrometre() {
    for (const Unit unit : {Unit::Millimetre, Unit::Inch}) {
      for (double mm = 0.1; mm < 1e5; mm *= 1.37) {
        QVERIFY(qAbs(*millimetresFrom(lengthText(mm, unit), unit) - mm) <= 5.0001e-4);
      }
    }
  }

  void noNeedlessZeros() {
    QCOMPARE(lengthText(80, Unit::Millimetre), "80");
    QCOMPARE(lengthText(80.5, Unit::Millimetre), "80.5");
    QCOMPARE(lengthWithUnit(25.4, Unit::Inch), "1 in");
  }
};

RIM_TEST(TestLengthText)
#include "tst_length_text.moc"
