// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/settings/settings_window.h"

#include "app/parts/form_parts.h"
#include "app/parts/prompts.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QFormLayout>

namespace inchpeg::app
{

namespace
{

// An example near enough to a real piece for a person to see what a unit looks like.
constexpr double kExampleForce_N = 1834.2;
constexpr double kExampleStress_MPa = 45.86;
constexpr double kExampleLength_mm = 10.02;

struct UnitRow {
    Dimension dimension;
    const char *label;
};
constexpr UnitRow kUnitRows[] = {
    {Dimension::Force, QT_TRANSLATE_NOOP("SettingsWindow", "Force")},
    {Dimension::Stress, QT_TRANSLATE_NOOP("SettingsWindow", "Stress and modulus")},
    {Dimension::Length, QT_TRANSLATE_NOOP("SettingsWindow", "Length")},
    {Dimension::Energy, QT_TRANSLATE_NOOP("SettingsWindow", "Energy")},
    {Dimension::Torque, QT_TRANSLATE_NOOP("SettingsWindow", "Torque")},
    {Dimension::Temperature, QT_TRANSLATE_NOOP("SettingsWindow", "Temperature")},
};

QComboBox *comboBox(const char *name, const QString &label)
{
    auto *box = new QComboBox;
    box->setObjectName(QLatin1String(name));
    box->setAccessibleName(label);
    return box;
}

} // namespace

SettingsWindow::SettingsWindow(Preferences &preferences, Prompts &prompts, QWidget *parent)
    : QDialog(parent), m_preferences(preferences), m_prompts(prompts)
{
    setObjectName(QStringLiteral("settingsWindow"));
    setWindowTitle(tr("Settings of Inch Peg"));
    setModal(false);
    resize(600, 680);
    auto *form = new QFormLayout(this);
    form->setContentsMargins(24, 18, 24, 18);
    form->setHorizontalSpacing(18);
    form->setVerticalSpacing(9);
    addUnits(form);
    addLooks(form);
    addFiles(form);
    refreshExample();
}

void SettingsWindow::addUnits(QFormLayout *form)
{
    form->addRow(heading(tr("Units and numbers")));
    for (const UnitRow &row : kUnitRows) {
        auto *box = comboBox("", tr(row.label));
        box->setObjectName(QStringLiteral("unit-") + QString::fromUtf8(dimensionName(row.dimension)));
        for (const std::string_view symbol : choosableUnits(row.dimension))
            box->addItem(QString::fromUtf8(symbol));
        box->setCurrentText(m_preferences.unit(row.dimension));
        connect(box, &QComboBox::textActivated, this, [this, row](const QString &symbol) {
            m_preferences.setUnit(row.dimension, symbol);
            refreshExample();
        });
        form->addRow(tr(row.label), box);
    }
    auto *mark = comboBox("decimalMark", tr("Decimal mark"));
    mark->addItem(tr("as in the system's region"));
    mark->addItem(tr("point: 12.5"));
    mark->addItem(tr("comma: 12,5"));
    mark->setCurrentIndex(static_cast<int>(m_preferences.decimalMark()));
    connect(mark, &QComboBox::activated, this, [this](int index) {
        m_preferences.setDecimalMark(static_cast<DecimalMark>(index));
        refreshExample();
    });
    form->addRow(tr("Decimal mark"), mark);
    m_example = softLabel({});
    m_example->setObjectName(QStringLiteral("notationExample"));
    form->addRow(QString(), m_example);
    form->addRow(softLabel(tr("Typed numbers may carry any unit and either mark. Exports stay in SI with a "
                              "decimal point.")));
}

void SettingsWindow::addLooks(QFormLayout *form)
{
    form->addRow(heading(tr("Looks")));
    auto *theme = comboBox("themeChoice", tr("Theme"));
    theme->addItem(tr("light, ink on paper"));
    theme->addItem(tr("dark, dim workshop"));
    theme->setCurrentIndex(m_preferences.isDark() ? 1 : 0);
    connect(theme, &QComboBox::activated, this, [this](int index) { m_preferences.setDark(index == 1); });
    connect(&m_preferences, &Preferences::looksChanged, theme,
            [this, theme] { theme->setCurrentIndex(m_preferences.isDark() ? 1 : 0); });
    form->addRow(tr("Theme"), theme);
    auto *size = new QDoubleSpinBox;
    size->setObjectName(QStringLiteral("fontSize"));
    size->setAccessibleName(tr("Size of letters"));
    size->setRange(kSmallestFontSize, kLargestFontSize);
    size->setSingleStep(0.5);
    size->setDecimals(1);
    size->setSuffix(tr(" pt"));
    size->setValue(m_preferences.fontSize());
    size->setKeyboardTracking(false);
    size->setButtonSymbols(QAbstractSpinBox::NoButtons);
    connect(size, &QDoubleSpinBox::valueChanged, &m_preferences, &Preferences::setFontSize);
    form->addRow(tr("Size of letters"), size);
    auto *tones = new QCheckBox(tr("tones at the bench"));
    tones->setObjectName(QStringLiteral("tonesOn"));
    tones->setChecked(m_preferences.areTonesOn());
    connect(tones, &QCheckBox::toggled, &m_preferences, &Preferences::setTonesOn);
    form->addRow(tr("Sound"), tones);
}

void SettingsWindow::addFiles(QFormLayout *form)
{
    form->addRow(heading(tr("Files")));
    auto *folder = lineEdit("defaultFolder", tr("Folder for new projects"));
    folder->setReadOnly(true);
    folder->setText(m_preferences.folder());
    auto *choose = button("chooseFolder", tr("Choose…"));
    connect(choose, &QPushButton::clicked, this, [this, folder] {
        const QString chosen =
            m_prompts.folderPath(this, tr("Folder for new projects"), m_preferences.folder());
        if (chosen.isEmpty())
            return;
        m_preferences.setFolder(chosen);
        folder->setText(m_preferences.folder());
    });
    auto *row = new QHBoxLayout;
    row->setSpacing(8);
    row->addWidget(folder, 1);
    row->addWidget(choose);
    form->addRow(tr("New projects in"), row);
    auto *forget = button("forgetRecent", tr("Forget the recent projects"));
    connect(forget, &QPushButton::clicked, &m_preferences, &Preferences::forgetRecentProjects);
    form->addRow(QString(), forget);
    form->addRow(softLabel(tr("Saving is always on: what you have done is on the disk.")));
}

void SettingsWindow::refreshExample()
{
    const Notation notation = m_preferences.notation();
    m_example->setText(
        tr("%1 on %2 %3 is %4")
            .arg(QString::fromStdString(notation.quantity(kExampleForce_N, Dimension::Force, 5)),
                 QString::fromStdString(notation.measuredLength(kExampleLength_mm)),
                 QString::fromUtf8(notation.unitOf(Dimension::Length).symbol),
                 QString::fromStdString(notation.quantity(kExampleStress_MPa, Dimension::Stress, 4))));
}

} // namespace inchpeg::app
