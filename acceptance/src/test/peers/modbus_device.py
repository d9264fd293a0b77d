"""A Modbus device by pymodbus, for tests: modbus_device.py tcp PORT | rtu-tcp PORT | serial PATH.

Unit 1 has holding registers 0..19 with their number times 100, then 256.5 as a float in 20 and 21 (high word first) and in 22 and 23 (low word first), and coils 0..9
of which the even ones are on. It has nothing else, and says that it is a PM-3 of Quern Instruments.
"""
import struct
import sys

from pymodbus.device import ModbusDeviceIdentification
from pymodbus.datastore import ModbusSequentialDataBlock, ModbusServerContext, ModbusSlaveContext
from pymodbus.server import StartSerialServer, StartTcpServer
from pymodbus.transaction import ModbusRtuFramer

high, low = struct.unpack(">HH", struct.pack(">f", 256.5))
registers = [100 * i for i in range(20)] + [high, low, low, high]
unit = ModbusSlaveContext(
    hr=ModbusSequentialDataBlock(0, registers),
    ir=ModbusSequentialDataBlock(0, [65535 - i for i in range(4)]),
    co=ModbusSequentialDataBlock(0, [i % 2 == 0 for i in range(10)]),
    di=ModbusSequentialDataBlock(0, [False] * 2),
    zero_mode=True,
)
context = ModbusServerContext(slaves={1: unit}, single=False)
identity = ModbusDeviceIdentification(info_name={"VendorName": "Quern Instruments", "ProductCode": "PM-3", "MajorMinorRevision": "1.4"})
if sys.argv[1] == "tcp":
    StartTcpServer(context=context, identity=identity, address=("127.0.0.1", int(sys.argv[2])))
elif sys.argv[1] == "rtu-tcp":
    StartTcpServer(context=context, identity=identity, framer=ModbusRtuFramer, address=("127.0.0.1", int(sys.argv[2])))
else:
    StartSerialServer(context=context, identity=identity, framer=ModbusRtuFramer, port=sys.argv[2], baudrate=19200, timeout=0.05)
