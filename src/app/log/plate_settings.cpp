// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/log/plate_settings.h"

#include "app/parts/page_parts.h"
#include "app/parts/peg_mark.h"
#include "core/import/text.h"
#include "disk/file_bytes.h"

#include <QFileInfo>

#include <fmt/format.h>

namespace inchpeg::app
{

namespace
{

constexpr int kSettingWidth = 140;

} // namespace

PlateSettings::PlateSettings(ProjectSession &session, Prompts &prompts, QWidget *parent)
    : QWidget(parent), m_session(session), m_prompts(prompts)
{
    auto *header = button("readHeader", tr("From a print file…"));
    header->setToolTip(tr("Reads the comments \"; key = value\" at the head of a G-code file"));
    auto *top = new QHBoxLayout;
    top->addWidget(heading(tr("Settings: as planned and as they were")), 1);
    top->addWidget(header);
    m_rows = new QGridLayout;
    m_rows->setHorizontalSpacing(14);
    m_rows->setVerticalSpacing(3);
    m_rows->setColumnStretch(3, 1);
    m_newSetting = comboBox("newSetting", tr("Another setting"));
    m_newSetting->setEditable(true);
    for (const FactorKind &kind : factorLibrary())
        m_newSetting->addItem(QString::fromUtf8(kind.name.data(), static_cast<qsizetype>(kind.name.size())));
    m_newSetting->setCurrentText({});
    m_newSetting->lineEdit()->setPlaceholderText(tr("another setting"));
    m_newValue = lineEdit("newSettingValue", tr("Its value"), tr("as it was"));
    auto *add = button("addSetting", tr("Add"));
    auto *another = new QHBoxLayout;
    another->addWidget(m_newSetting);
    another->addWidget(m_newValue);
    another->addWidget(add);
    another->addStretch(1);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addLayout(top);
    layout->addLayout(m_rows);
    layout->addLayout(another);
    connect(header, &QPushButton::clicked, this, &PlateSettings::readHeader);
    connect(add, &QPushButton::clicked, this, &PlateSettings::add);
}

void PlateSettings::add()
{
    const bool added = m_session.tryEdit(tr("log a setting"), [this](Study &study) {
        return logSetting(study, m_number, m_newSetting->currentText().trimmed().toStdString(),
                          m_newValue->text().trimmed().toStdString());
    });
    if (added) {
        m_newSetting->setCurrentText({});
        m_newValue->clear();
    }
}

void PlateSettings::addRow(const ComparedSetting &setting, int row)
{
    const QString name = QString::fromStdString(setting.name);
    auto *real = lineEdit("", tr("%1, as it was").arg(name), tr("as planned"));
    real->setObjectName(QStringLiteral("real-") + name);
    real->setText(QString::fromStdString(setting.real));
    real->setMaximumWidth(kSettingWidth);
    real->setMinimumWidth(kNarrowestField);
    m_rows->addWidget(new QLabel(name), row, 0);
    m_rows->addWidget(
        new QLabel(setting.planned.empty() ? QStringLiteral("–") : QString::fromStdString(setting.planned)),
        row, 1);
    m_rows->addWidget(real, row, 2);
    onTyped(
        real,
        [this, key = setting.name](const QString &text) {
            return m_session.tryEdit(tr("log a setting"), [&](Study &study) {
                return logSetting(study, m_number, key, text.trimmed().toStdString());
            });
        },
        [this] { refresh(); });
    if (!setting.differs)
        return;
    auto *box = new QWidget;
    auto *words = new QHBoxLayout(box);
    words->setContentsMargins(0, 0, 0, 0);
    words->addWidget(new PegMark(setting.isOpen() ? PegState::Doubtful : PegState::Measured));
    const auto *told = setting.answer ? &*setting.answer : nullptr;
    words->addWidget(softLabel(told == nullptr ? tr("not as planned: meant?")
                               : told->meant
                                   ? tr("was meant (%1)").arg(QString::fromStdString(told->who))
                                   : tr("was not meant (%1)").arg(QString::fromStdString(told->who))),
                     1);
    const auto answer = [&](const char *prefix, const QString &text, bool meant) {
        auto *push = button("", text);
        push->setObjectName(QLatin1String(prefix) + name);
        push->setProperty("slim", true);
        words->addWidget(push);
        connect(push, &QPushButton::clicked, this, [this, key = setting.name, meant] {
            m_session.tryEdit(tr("answer a difference"), [&](Study &study) {
                return answerDifference(study, m_number, key,
                                        {meant, m_session.who().toStdString(), m_session.now()});
            });
        });
    };
    if (told == nullptr) {
        answer("meant-", tr("Yes, meant"), true);
        answer("notMeant-", tr("No"), false);
    }
    m_rows->addWidget(box, row, 3);
}

void PlateSettings::show(const Plate &plate)
{
    m_plate = plate;
    m_number = plate.number;
    refresh();
}

void PlateSettings::refresh()
{
    clearLayout(m_rows);
    if (m_session.study() == nullptr)
        return;
    int column = 0;
    for (const QString &title : {tr("Setting"), tr("Planned"), tr("As it was")})
        m_rows->addWidget(softLabel(title), 0, column++);
    int row = 1;
    for (const ComparedSetting &setting : comparedSettings(*m_session.study(), m_plate))
        addRow(setting, row++);
}

void PlateSettings::readHeader()
{
    const QString path =
        m_prompts.filePath(this, tr("Settings from a print file"), tr("Print files (*.gcode *.g *.txt)"));
    if (path.isEmpty())
        return;
    const Result<std::string> bytes = readFileBytes(path.toStdString());
    const Result<DecodedText> text = bytes ? decodeText(*bytes) : Result<DecodedText>(bytes.error());
    if (!text) {
        m_session.tell(bytes ? badInput(fmt::format("{}: {}", path.toStdString(), text.error().message))
                             : bytes.error());
        return;
    }
    m_session.tryEdit(tr("settings of plate %1").arg(m_number), [&](Study &study) -> Status {
        const Result<HeaderSettings> header = settingsFromHeader(text->utf8);
        const std::string name = QFileInfo(path).fileName().toStdString();
        if (!header)
            return badInput(name + " " + header.error().message);
        for (const RealSetting &setting : header->settings) {
            if (const Status status = logSetting(study, m_number, setting.name, setting.value); !status)
                return status;
        }
        PlateRecord &record = plateRecord(study.log, m_number);
        record.settingsFrom = name;
        if (header->grams)
            record.grams = header->grams;
        if (header->minutes)
            record.minutes = header->minutes;
        return ok();
    });
}

} // namespace inchpeg::app
